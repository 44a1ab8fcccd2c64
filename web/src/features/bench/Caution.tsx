const RULES = [
  "Sugar at this heat burns through skin at once and sticks. Double gloves, sleeves, closed shoes.",
  "A bowl of cold water stands within reach. Burnt: cool under running water for 20 minutes, then get help.",
  "No children, no pets. Nobody carries a pot past anyone.",
  "Colour drops and water spit: not before the bubbles have gone down.",
  "Local rules and your own training come before anything shown here.",
];

export function Caution() {
  return (
    <ul className="mt-2 list-none space-y-1.5 text-lg">
      {RULES.map((rule) => (
        <li key={rule} className="border-l-4 border-heat pl-3">
          {rule}
        </li>
      ))}
    </ul>
  );
}
