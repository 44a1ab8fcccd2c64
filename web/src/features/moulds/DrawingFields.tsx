import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { type Problem, problemOf, type Schemas } from "../../api/client";
import { amount } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { propertiesQuery } from "../../shared/kitchen";
import { NozzlePick } from "../../shared/NozzlePick";
import { pointsOf } from "../../shared/points";
import { ReadRemarks } from "../../shared/ReadRemarks";
import { Pick } from "../../shared/ui/controls";
import { FileButton } from "../../shared/ui/files";
import { NumberField } from "../../shared/ui/NumberField";
import { Button, Notice } from "../../shared/ui/plain";
import { meltsIn } from "../../shared/wording";
import { type Drawing, lineOf } from "./drawing";
import { readLines } from "./queries";

/** What a drawing is piped with, and where its lines come from. */
export function DrawingFields({
  shape,
  material,
  onMaterial,
  onChange,
}: {
  shape: Drawing;
  material: string;
  onMaterial: (key: string) => void;
  onChange: (shape: Drawing) => void;
}) {
  const melts = meltsIn(useQuery(propertiesQuery).data?.groups);
  const bore = (bore_m: number) => onChange({ ...shape, bore_m });
  return (
    <>
      <NumberField
        label="Opening of the bag or nozzle"
        quantity="length"
        value={shape.bore_m}
        onChange={bore}
        step={0.5}
      />
      <NozzlePick bore_m={shape.bore_m} onChange={bore} />
      <Pick
        label="Checked as"
        value={material}
        options={melts.map((melt) => ({ key: melt.key, name: melt.name }))}
        onChange={onMaterial}
      />
      <Imported
        onLines={(lines) => onChange({ ...shape, lines: lines.map((line) => lineOf(pointsOf(line))) })}
      />
    </>
  );
}

/** Lines out of an SVG file; its width is asked where it does not say how large it is. */
function Imported({ onLines }: { onLines: (lines: Schemas["LinesReply"]["lines"]) => void }) {
  const units = useUnits();
  const [svg, setSvg] = useState<string | null>(null);
  const [width, setWidth] = useState<number | null>(null);
  const [remarks, setRemarks] = useState<string[]>([]);
  const [refused, setRefused] = useState<Problem | null>(null);
  const read = async (text: string, width_m: number | null) => {
    setRefused(null);
    setRemarks([]);
    try {
      const found = await readLines(text, width_m);
      setRemarks(found.remarks);
      setSvg(found.told ? null : text);
      if (found.told) onLines(found.lines);
      else setWidth(found.wide_m);
    } catch (error) {
      setRefused(problemOf(error));
    }
  };
  return (
    <div className="space-y-2">
      <FileButton label="SVG file" accept=".svg,image/svg+xml" onText={(text) => void read(text, null)}>
        Take the lines of an SVG file
      </FileButton>
      {svg !== null && (
        <Notice>
          The file does not say how large it is. How wide is the drawing to be?
          <NumberField label="Wide" quantity="length" value={width} onChange={setWidth} step={5} />
          <Button disabled={width === null} onClick={() => void read(svg, width)}>
            {width === null ? "Put it in" : `Put it in, ${amount(width, "length", units)} wide`}
          </Button>
        </Notice>
      )}
      <ReadRemarks refused={refused} remarks={remarks} />
    </div>
  );
}
