interface Props {
  colour: string | null;
  colours: string[];
  /** What it is the colour of. */
  label: string;
  onChange: (colour: string | null) => void;
}

/** In which colour something is: as it comes, one of those at hand, another. */
export function ColourField({ colour, colours, label, onChange }: Props) {
  return (
    <fieldset>
      <legend className="text-sm text-quiet">Colour</legend>
      <div className="flex flex-wrap items-center gap-2">
        <button
          type="button"
          aria-pressed={colour === null}
          onClick={() => onChange(null)}
          className={`min-h-9 rounded-sm border-2 px-2 ${colour === null ? "border-glass font-bold" : "border-line"}`}
        >
          as it comes
        </button>
        {colours.map((hex) => (
          <button
            key={hex}
            type="button"
            aria-label={`Colour ${hex}`}
            aria-pressed={colour === hex}
            onClick={() => onChange(hex)}
            className={`h-9 w-9 rounded-sm border-2 ${colour === hex ? "border-glass outline-2 outline-glass" : "border-line"}`}
            style={{ background: hex }}
          />
        ))}
        <input
          type="color"
          aria-label={`${label}, another colour`}
          value={colour ?? "#ffffff"}
          onChange={(event) => onChange(event.target.value)}
          className="h-9 w-12"
        />
      </div>
    </fieldset>
  );
}
