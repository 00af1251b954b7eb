import { useEffect, useMemo, useRef, useState, type DragEvent } from 'react';
import { plainIcon } from '@periwinkle/core/render/icon';
import { importedIcon, type ImportedIcon } from '@periwinkle/core/render/icon-import';
import { putIcons, removeIcon, renameIcon, usesOfIcon } from '@periwinkle/core/edits/icon-edits';
import { NameFilter } from '../common/name-filter';
import { counted } from '../common/numbers';
import { useStore, useSystemPart } from '../data/system-context';
import { CommitField } from '../making/commit-field';
import { ConsideredAct } from '../making/considered-act';
import { useRestructure } from '../making/use-restructure';

interface Incoming {
  readonly name: string;
  readonly text: string;
}

/** The drawings of a system: taken in by file, by dragging or pasting, named, replaced wherever they are shown. */
export function IconsScreen() {
  const system = useSystemPart('edited');
  const store = useStore();
  const restructure = useRestructure();
  const [filter, setFilter] = useState('');
  const [told, setTold] = useState<readonly ImportedIcon[]>([]);
  const [keepsColours, setKeepsColours] = useState(false);
  const picker = useRef<HTMLInputElement>(null);
  const take = (incoming: readonly Incoming[], instead?: string): void => {
    const read = incoming.map(({ name, text }) => importedIcon(instead ?? name, text, keepsColours));
    setTold(read);
    const icons = new Map(read.flatMap(icon => (icon.ok ? [[icon.name, icon.svg] as const] : [])));
    if (icons.size === 0) return;
    const names = [...icons.keys()].join(', ');
    const reason = restructure(
      putIcons(icons),
      `${instead === undefined ? 'Taken in' : 'Replaced'}: ${names}`,
    );
    if (reason !== null) store.say('error', reason);
  };
  const takeFiles = async (files: Iterable<File>, instead?: string): Promise<void> => {
    const incoming = await Promise.all(
      [...files].map(async file => ({ name: file.name, text: await file.text() })),
    );
    take(incoming, instead);
  };
  const latest = useRef(take);
  useEffect(() => {
    latest.current = take;
  });
  useEffect(() => {
    const paste = (event: ClipboardEvent): void => {
      const text = event.clipboardData?.getData('text/plain') ?? '';
      if (!/<svg[\s>]/i.test(text) || event.target instanceof HTMLInputElement) return;
      event.preventDefault();
      latest.current([{ name: 'pasted', text }]);
    };
    document.addEventListener('paste', paste);
    return () => document.removeEventListener('paste', paste);
  }, []);
  const drop = (event: DragEvent): void => {
    event.preventDefault();
    void takeFiles(event.dataTransfer.files);
  };
  const wanted = filter.trim().toLowerCase();
  const shown = [...system.icons].filter(([name]) => name.toLowerCase().includes(wanted));
  return (
    <div className="icons-page" onDragOver={event => event.preventDefault()} onDrop={drop}>
      <div className="head">
        <h1>Icons</h1>
        <span className="said crumb">
          {counted(system.icons.size, 'drawing')}, in the colour of the text around
        </span>
        <span className="beside">
          <button type="button" className="act" onClick={() => picker.current?.click()}>
            Take in drawings
          </button>
        </span>
        <input
          ref={picker}
          type="file"
          accept=".svg,image/svg+xml"
          multiple
          hidden
          aria-label="drawings to take in"
          onChange={event => {
            void takeFiles([...(event.target.files ?? [])]);
            event.target.value = '';
          }}
        />
      </div>
      <div className="icons-strip">
        <NameFilter text={filter} onType={setFilter} />
        <label className="said">
          <input
            type="checkbox"
            checked={keepsColours}
            onChange={event => setKeepsColours(event.target.checked)}
          />{' '}
          with colours of their own
        </label>
        <span className="said">SVG files can be dragged here, or pasted.</span>
      </div>
      {told.length > 0 ? <Told icons={told} onClose={() => setTold([])} /> : null}
      <ul className="icons">
        {shown.map(([name, svg]) => (
          <IconEntry key={name} name={name} svg={svg} onReplace={file => void takeFiles([file], name)} />
        ))}
      </ul>
      {shown.length === 0 ? (
        <p className="said icons-strip">
          {wanted ? 'No drawing is called that.' : 'No drawings yet. Drag SVG files here, or paste one.'}
        </p>
      ) : null}
    </div>
  );
}

/** What was taken in, and what of it was left out, or why it was not. */
function Told({ icons, onClose }: { icons: readonly ImportedIcon[]; onClose: () => void }) {
  return (
    <div className="told" role="status">
      <ul>
        {icons.map((icon, index) => (
          <li key={index}>
            <b>{icon.name}</b>{' '}
            {icon.ok ? (
              icon.leftOut.length === 0 ? (
                <span className="holds">is taken in as it is</span>
              ) : (
                <>is taken in. {icon.leftOut.join(' ')}</>
              )
            ) : (
              <span className="fails">is not taken in. {icon.reason}</span>
            )}
          </li>
        ))}
      </ul>
      <button type="button" className="act" onClick={onClose}>
        put away
      </button>
    </div>
  );
}

function IconEntry({ name, svg, onReplace }: { name: string; svg: string; onReplace: (file: File) => void }) {
  const system = useSystemPart('edited');
  const restructure = useRestructure();
  const picker = useRef<HTMLInputElement>(null);
  const uses = useMemo(() => usesOfIcon(system, name), [system, name]);
  const drawing = useRef<HTMLSpanElement>(null);
  useEffect(() => {
    const plain = plainIcon(svg);
    const parsed = plain && new DOMParser().parseFromString(plain, 'image/svg+xml').documentElement;
    drawing.current?.replaceChildren(...(parsed ? [document.importNode(parsed, true)] : []));
  }, [svg]);
  return (
    <li>
      <span ref={drawing} className="drawing" aria-hidden="true" />
      <div>
        <CommitField
          quiet
          label={`name of ${name}`}
          mono
          value={name}
          onCommit={to => restructure(renameIcon(name, to.trim()), `${name} is now ${to.trim()}`)}
        />
        <p className="said">
          {uses.length === 0
            ? 'shown nowhere'
            : `${uses
                .map(({ component }) => component.title)
                .slice(0, 3)
                .join(', ')}${uses.length > 3 ? ` and ${uses.length - 3} more` : ''}`}
        </p>
        <p className="acts">
          <button
            type="button"
            className="act"
            aria-label={`replace: ${name}`}
            onClick={() => picker.current?.click()}
          >
            replace
          </button>
          <ConsideredAct
            words="take out"
            title={name}
            edit={removeIcon(name)}
            label={`Icon ${name} taken out`}
            about=""
          />
        </p>
        <input
          ref={picker}
          type="file"
          accept=".svg,image/svg+xml"
          hidden
          aria-label={`drawing instead of ${name}`}
          onChange={event => {
            const [file] = event.target.files ?? [];
            if (file) onReplace(file);
            event.target.value = '';
          }}
        />
      </div>
    </li>
  );
}
