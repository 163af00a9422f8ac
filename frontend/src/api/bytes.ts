/** How a file's bytes, or a text as such, are sent as a request's body. */
export function bytes(body: Blob | string, type: string) {
  return {
    // The client's types describe bodies of JSON only.
    body: body as never,
    bodySerializer: (content: unknown) => content as Blob,
    headers: { 'Content-Type': type },
  };
}
