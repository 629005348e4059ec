export function Wordmark({ large = false }: { large?: boolean }) {
  return (
    <span className={`inline-flex flex-col leading-none ${large ? "text-3xl" : "text-lg"} font-bold`}>
      Tropometer
      <span className="tape-edge mt-0.5 block w-full opacity-70" aria-hidden />
    </span>
  );
}
