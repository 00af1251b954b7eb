import { useEffect, useState } from 'react';
import { namesOf } from '@periwinkle/core/render/names';
import type { OutputFile } from '@periwinkle/core/output/outputs';
import { CodeBlock, CopyButton } from '../common/code-block';
import { countText } from '../common/numbers';
import { useSystemPart } from '../data/system-context';
import type { WrittenOutputs } from '../engine/questions';
import { useAnswer } from '../engine/use-answer';
import { zipped } from './zip';

const EVERYTHING = {};
const NOTHING_YET: WrittenOutputs = { files: [], folder: [] };

/** What is handed over: stylesheets, markup, the system's own folder; to read here, or all in one zip. */
export function OutputsScreen() {
  const system = useSystemPart('edited');
  const storing = useSystemPart('storing');
  const { value, upToDate, failed } = useAnswer('outputs', EVERYTHING, system.documents);
  const { files, folder } = value ?? NOTHING_YET;
  const all = [...files, ...folder];
  const names = namesOf(system);
  const [path, setPath] = useState('');
  const shown = all.find(file => file.path === path) ?? files[0];
  // Asked for while the files are still being written, the download begins once they are.
  const [wanted, setWanted] = useState(false);
  useEffect(() => {
    if (!wanted || !upToDate) return;
    setWanted(false);
    handOver(`${system.id}.zip`, zipped([...files, ...folder]));
  }, [wanted, upToDate, files, folder, system.id]);
  return (
    <>
      <div className="head">
        <h1>Outputs</h1>
        <span className="said crumb">the same bytes every time from the same system</span>
        <span className="push">
          <button type="button" className="btn btn-primary" onClick={() => setWanted(true)}>
            Download {system.id}.zip
          </button>
        </span>
      </div>
      {failed ? (
        <p className="fault" role="alert">
          The files could not be written: {failed.message}
        </p>
      ) : upToDate ? null : (
        <div className="strip" role="status">
          {wanted ? 'Writing the files; the download begins then …' : 'Writing the files …'}
        </div>
      )}
      {storing === 'stored' ? null : (
        <div className="strip" role="status">
          This already holds your last edits, which are still being stored.
        </div>
      )}
      <div className="outputs">
        <div>
          <FileList title="To ship" files={files} path={path} onChoose={setPath} />
          <FileList title="The system’s folder" files={folder} path={path} onChoose={setPath} />
          <h2 style={{ marginTop: 22 }}>How to use it</h2>
          <ol>
            <li>
              Copy the folder <code>css</code> to where your pages find their stylesheets.
            </li>
            <li>
              Link one file in the page’s head: <code>{'<link rel="stylesheet" href="css/index.css">'}</code>
            </li>
            <li>
              Copy the markup from the field’s page in <code>html</code>. Options are attributes on its
              outermost element, such as <code>data-size="large"</code>.
            </li>
            {system.tokens.modifiers.map(modifier => (
              <li key={modifier.name}>
                For another {modifier.name}, put{' '}
                <code>{`${names.context(modifier.name)}="${modifier.contexts.at(-1)}"`}</code> on any element;
                everything below it follows.
              </li>
            ))}
            <li>
              <code>README.md</code> tells every attribute that an application sets, and when.
            </li>
          </ol>
        </div>
        <div>
          {shown ? (
            <>
              <div className="code-head">
                <code>{shown.path}</code>
                <CopyButton text={shown.text} what={shown.path} />
              </div>
              <CodeBlock text={shown.text} label={shown.path} />
            </>
          ) : null}
        </div>
      </div>
    </>
  );
}

function handOver(name: string, bytes: Uint8Array): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([bytes as BlobPart], { type: 'application/zip' }));
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}

function FileList({
  title,
  files,
  path,
  onChoose,
}: {
  title: string;
  files: readonly OutputFile[];
  path: string;
  onChoose: (path: string) => void;
}) {
  return (
    <>
      <h2 style={{ marginTop: 14 }}>{title}</h2>
      <ul className="files">
        {files.map(file => (
          <li key={file.path}>
            <button
              type="button"
              className={file.path === path ? 'word' : 'word off'}
              aria-pressed={file.path === path}
              onClick={() => onChoose(file.path)}
            >
              {file.path}
            </button>
            <span>{countText(new TextEncoder().encode(file.text).length)} B</span>
          </li>
        ))}
      </ul>
    </>
  );
}
