/** What the core uses of WebAssembly, which browsers and Node both have. */
declare namespace WebAssembly {
  /** Code that was compiled. */
  type Module = object;
  const Module: new (code: Uint8Array) => Module;
  class Instance {
    constructor(module: Module);
    readonly exports: object;
  }
  class Memory {
    readonly buffer: ArrayBuffer;
    grow(pages: number): number;
  }
}
