import { useSearchParams } from 'react-router';

/** Which dialog lies open, `do`, and what it is about, `on`: so it can be linked, and the back button closes it. */
const [WHICH, ABOUT] = ['do', 'on'];

export interface DialogAddress<Name extends string> {
  readonly open: { readonly name: Name; readonly about: string } | null;
  readonly show: (name: Name, about?: string) => void;
  readonly close: () => void;
}

/** The dialog that the address names, if it is one of some. */
export function useDialogAddress<Name extends string>(names: readonly Name[]): DialogAddress<Name> {
  const [parameters, setParameters] = useSearchParams();
  const name = names.find(each => each === parameters.get(WHICH!));
  return {
    open: name === undefined ? null : { name, about: parameters.get(ABOUT!) ?? '' },
    show: (next, about) =>
      setParameters(before => {
        const after = new URLSearchParams(before);
        after.set(WHICH!, next);
        if (about === undefined) after.delete(ABOUT!);
        else after.set(ABOUT!, about);
        return after;
      }),
    close: () =>
      setParameters(
        before => {
          const after = new URLSearchParams(before);
          after.delete(WHICH!);
          after.delete(ABOUT!);
          return after;
        },
        { replace: true },
      ),
  };
}
