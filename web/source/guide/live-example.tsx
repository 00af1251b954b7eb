import { useMemo, useState } from 'react';
import { exampleMarkup } from '@periwinkle/core/output/page/component-page';
import { componentCssText, tokensCssText } from '@periwinkle/core/output/outputs';
import type { Component } from '@periwinkle/core/components/component';
import type { System } from '@periwinkle/core/components/system';
import type { Combination } from '@periwinkle/core/space/space';
import type { ContextInput } from '@periwinkle/core/tokens/contexts';
import { CodeBlock, CopyButton } from '../common/code-block';
import { LiveField } from '../component/try-field';
import { PreviewSurface } from '../specimen/preview-surface';
import { useShape } from '../specimen/specimen';

/** A live field beside the code that makes it; its settings change both. */
export function LiveExample({
  system,
  component,
  contexts,
}: {
  system: System;
  component: Component;
  contexts: ContextInput;
}) {
  const shape = useShape(system, component);
  const [settings, setSettings] = useState<Combination>({});
  const [kind, setKind] = useState('Markup');
  const codes = useMemo(
    () => ({
      Markup: () => exampleMarkup(system, component, { content: 'empty', ...settings }),
      Stylesheet: () => componentCssText(system, component),
      Tokens: () => tokensCssText(system),
    }),
    [system, component, settings],
  );
  const text = useMemo(() => codes[kind as keyof typeof codes](), [codes, kind]);
  const axes = component.space.axes.filter(
    axis =>
      axis.kind === 'option' ||
      axis.state?.values.some(value => value.mark && value.mark.attribute !== 'value'),
  );
  return (
    <>
      <section>
        <h2>Live</h2>
        <PreviewSurface system={system} contexts={contexts} className="live">
          <LiveField shape={shape} combination={settings} sample={component.samples[0]?.id} />
        </PreviewSurface>
        <dl className="settings">
          {axes.map(axis => (
            <div key={axis.id} style={{ display: 'contents' }}>
              <dt>{axis.title}</dt>
              <dd>
                {axis.values.map((value, index) => {
                  const on = (settings[axis.id] ?? axis.values[axis.rest]!.id) === value.id;
                  return (
                    <button
                      key={value.id}
                      type="button"
                      className={on ? 'word' : 'word off'}
                      aria-pressed={on}
                      onClick={() =>
                        setSettings(before => ({ ...before, [axis.id]: axis.values[index]!.id }))
                      }
                    >
                      {value.id}
                    </button>
                  );
                })}
              </dd>
            </div>
          ))}
        </dl>
      </section>
      <section>
        <div className="code-head">
          <h2>Code</h2>
          <CopyButton text={text} what={kind} />
        </div>
        <div className="code-head">
          <span className="choices">
            {Object.keys(codes).map(each => (
              <button
                key={each}
                type="button"
                className={each === kind ? 'word' : 'word off'}
                aria-pressed={each === kind}
                onClick={() => setKind(each)}
              >
                {each}
              </button>
            ))}
          </span>
        </div>
        <CodeBlock text={text} label={kind} />
      </section>
    </>
  );
}
