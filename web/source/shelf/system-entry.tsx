import { useQuery } from '@tanstack/react-query';
import { wrap } from 'comlink';
import { useMemo, useRef } from 'react';
import { Link } from 'react-router';
import { compileSystem } from '@periwinkle/core/components/system';
import type { SystemSummary } from '@periwinkle/protocol/wire';
import { counted } from '../common/numbers';
import { useSeen } from '../common/use-seen';
import { systemUrl } from '../data/api';
import { FieldAtRest } from '../specimen/field-at-rest';
import { PreviewSurface } from '../specimen/preview-surface';
import { SpecimenStyles } from '../specimen/specimen-styles';
import { documentsIn, type Glance } from './glance';
import { Glances } from './glances';
import type { GlanceApi } from './glance.worker';

const SHOWN = 5;
const MOST_MS = 10_000;

const glances = new Glances(() => {
  const worker = new Worker(new URL('./glance.worker.ts', import.meta.url), { type: 'module' });
  const api = wrap<GlanceApi>(worker);
  return { at: address => api.at(address), end: () => worker.terminate() };
}, MOST_MS);

/** A system on the shelf: title, a strip of specimens, counts, last change. */
export function SystemEntry({
  system,
  onRemove,
  onCopy,
}: {
  system: SystemSummary;
  onRemove: () => void;
  onCopy: () => void;
}) {
  const entry = useRef<HTMLElement>(null);
  // There can be hundreds: each is looked at when somebody comes to it.
  const enabled = useSeen(entry);
  const glance = useQuery({
    enabled,
    queryKey: ['glance', system.id, system.changedAt],
    queryFn: () => glances.at(systemUrl(system.id)),
  });
  const changed = new Date(system.changedAt).toLocaleString('en-GB', {
    dateStyle: 'medium',
    timeStyle: 'short',
  });
  return (
    <article ref={entry}>
      <h2>
        <Link to={`/${system.id}`}>{system.title}</Link>
      </h2>
      <div className="acts">
        <button type="button" className="act" onClick={onCopy} aria-label={`Duplicate ${system.title}`}>
          duplicate
        </button>
        <button type="button" className="act" onClick={onRemove} aria-label={`Remove ${system.title}`}>
          remove
        </button>
      </div>
      <div className="facts">
        {glance.data === undefined ? (glance.isError ? 'could not be read' : '…') : facts(glance.data)},
        changed {changed}
      </div>
      {glance.data?.text ? <Strip text={glance.data.text} /> : null}
    </article>
  );
}

function facts(glance: Glance | null): string {
  if (!glance) return 'too much to be counted here';
  const { fields, tokens, combinations } = glance;
  return [counted(fields, 'field'), counted(tokens, 'token'), counted(combinations, 'combination')].join(
    ', ',
  );
}

/** A few specimens: of one component its situations, of several each at rest. */
function Strip({ text }: { text: string }) {
  const system = useMemo(() => compileSystem(documentsIn(text)), [text]);
  const contexts = system.tokens.usualInput();
  const [first] = system.components;
  if (!first) return null;
  const one = system.components.length === 1 && first.situations.length > 0;
  const shown = one
    ? first.situations
        .slice(0, SHOWN)
        .map(situation => ({ component: first, wants: situation.when, key: situation.id }))
    : system.components.slice(0, SHOWN).map(component => ({ component, wants: {}, key: component.id }));
  return (
    <SpecimenStyles system={system}>
      <div className="specimens">
        {shown.map(({ component, wants, key }) => (
          <PreviewSurface key={key} system={system} contexts={contexts}>
            <FieldAtRest system={system} component={component} wants={wants} />
          </PreviewSurface>
        ))}
      </div>
    </SpecimenStyles>
  );
}
