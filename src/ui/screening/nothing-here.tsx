/** For a stranger whose link leads nowhere: nothing of the studio is here, not even a way to it. */
export function NothingHere({ title, words }: { title: string; words: string }) {
  return (
    <main className="grid min-h-dvh place-items-center bg-black p-8 text-center text-lamp">
      <div>
        <h1 className="text-xl">{title}</h1>
        <p className="mt-2 text-base text-lamp-soft">{words}</p>
      </div>
    </main>
  );
}
