const AGAIN_MS = 1500;

/** The whole answer to a request. A server that cannot be reached, or is lost half-way, is asked again until it answers. For workers. */
export async function patientFetch(url: string): Promise<Response> {
  for (;;) {
    try {
      const response = await fetch(url);
      return new Response(await response.arrayBuffer(), { status: response.status, headers: response.headers });
    } catch (error) {
      // What `fetch` says when nobody answers.
      if (!(error instanceof TypeError)) throw error;
    }
    await new Promise((resolve) => {
      setTimeout(resolve, AGAIN_MS);
    });
  }
}
