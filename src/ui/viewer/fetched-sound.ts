/** From here on the server could not do it now; what it refuses for good has a lower status. */
const NOT_NOW = 500;

/**
 * A sound of the server's, unpacked. One that cannot be had must not keep the pictures from playing.
 *
 * @param forget called where it is to be asked for again with the next playing: nobody could be reached, or it could not be handed out now
 * @returns null when it is not heard this time
 */
export async function fetchedSound<Sound>(
  address: string,
  unpack: (bytes: ArrayBuffer) => Promise<Sound>,
  forget: () => void,
): Promise<Sound | null> {
  try {
    const response = await fetch(address);
    if (response.ok) return await unpack(await response.arrayBuffer());
    if (response.status >= NOT_NOW) forget();
  } catch {
    forget();
  }
  return null;
}
