import { toast } from 'sonner';

/** Puts words where they can be pasted, and says so. Where a browser does not let it – without TLS it does not – they are shown, to be taken by hand. */
export async function copied(words: string, says: string): Promise<void> {
  const there = await Promise.resolve()
    .then(() => navigator.clipboard.writeText(words))
    .then(
      () => true,
      () => false,
    );
  if (there) toast(says);
  else toast('This browser does not let it be copied. Take it from here:', { description: words, duration: 60_000 });
}
