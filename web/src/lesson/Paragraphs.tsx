/** A text with its breaks. */
export function Paragraphs({ text }: { text: string }) {
  return (
    <>
      {text
        .split(/\n+/)
        .filter(Boolean)
        .map((line, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: the same line may stand there twice
          <p key={`${i} ${line}`} className="mb-3 leading-relaxed">
            {line}
          </p>
        ))}
    </>
  );
}
