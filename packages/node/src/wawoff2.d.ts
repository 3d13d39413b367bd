declare module 'wawoff2' {
  const exported: { decompress(bytes: Uint8Array): Promise<Uint8Array> };
  export default exported;
}
