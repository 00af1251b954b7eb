/** The modules that ship with every system: bundled from `core/runtime/modules` when something is built or tested. */
declare module 'periwinkle:shipped' {
  /** By name of the file: its text, and the files that it asks for. */
  export const SCRIPTS: Readonly<
    Record<string, { readonly text: string; readonly needs: readonly string[] }>
  >;
}
