import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { WorkingCopy } from '../synchronisation/working-copy';
import { compileSystem, type System } from '@periwinkle/core/components/system';
import { counted } from '../common/numbers';
import { api, type SystemSummary } from '../data/api';
import { FieldAtRest } from '../specimen/field-at-rest';
import { PreviewSurface } from '../specimen/preview-surface';
import { SpecimenStyles } from '../specimen/specimen-styles';

const SHOWN = 5;

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
  const whole = useQuery({
    queryKey: ['whole', system.id, system.changedAt],
    queryFn: () => api.system(system.id),
  });
  const compiled = useMemo(
    () => whole.data && compileSystem(WorkingCopy.of(whole.data.documents, 0).documents),
    [whole.data],
  );
  const changed = new Date(system.changedAt).toLocaleString('en-GB', {
    dateStyle: 'medium',
    timeStyle: 'short',
  });
  return (
    <article>
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
        {compiled ? facts(compiled) : '…'}, changed {changed}
      </div>
      {compiled && compiled.components.length > 0 ? <Strip system={compiled} /> : null}
    </article>
  );
}

function facts(system: System): string {
  const combinations = system.components.reduce((sum, component) => sum + component.space.count(), 0n);
  return [
    counted(system.components.length, 'field'),
    counted(system.tokens.usual().byKey.size, 'token'),
    counted(combinations * BigInt(system.tokens.contextCount()), 'combination'),
  ].join(', ');
}

/** A few specimens: of one component its situations, of several each at rest. */
function Strip({ system }: { system: System }) {
  const contexts = system.tokens.usualInput();
  const [first] = system.components;
  const one = system.components.length === 1 && first!.situations.length > 0;
  const shown = one
    ? first!.situations
        .slice(0, SHOWN)
        .map(situation => ({ component: first!, wants: situation.when, key: situation.id }))
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
