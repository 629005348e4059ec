/** A text with its breaks. */
export function Paragraphs({ text }: { text: string }) {
  return (
    <>
      {text
        .split(/\n+/)
        .filter(Boolean)
        .map((line) => (
          <p key={line} className="mb-3 leading-relaxed">
            {line}
          </p>
        ))}
    </>
  );
}
