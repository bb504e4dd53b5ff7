/** For a stranger: nothing of the studio is here, not even a way to it. */
export default function NothingToMark() {
  return (
    <main className="grid min-h-dvh place-items-center bg-black p-8 text-center text-lamp">
      <div>
        <h1 className="text-xl">There are no pictures here</h1>
        <p className="mt-2 text-base text-lamp-soft">
          The link may not be whole, or the time to choose is over. Ask whoever sent it to you.
        </p>
      </div>
    </main>
  );
}
