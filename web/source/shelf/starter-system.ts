const color = (hex: string): object => {
  const components = [1, 3, 5].map(at => Number((parseInt(hex.slice(at, at + 2), 16) / 255).toFixed(4)));
  return { $value: { colorSpace: 'srgb', components, hex } };
};
const px = (value: number): object => ({ $value: { value, unit: 'px' } });

/** The least that can be drawn: one plain field and the tokens it needs, to begin from. */
export function starterDocuments(id: string, title: string): Record<string, unknown> {
  return {
    'system.json': {
      format: 'periwinkle-system/1',
      id,
      title,
      prefix: id.replace(/-.*$/, '').slice(0, 8),
      rootFontSize: 16,
    },
    'tokens/base.tokens.json': {
      color: {
        $type: 'color',
        ink: color('#1d1d24'),
        hint: color('#62626e'),
        line: color('#767682'),
        over: color('#30303a'),
        wrong: color('#a5222f'),
      },
      size: { $type: 'dimension', line: px(1), corner: px(3), height: px(34), inset: px(8) },
    },
    'components/field.component.json': {
      format: 'periwinkle-component/1',
      id: 'field',
      title: 'Field',
      group: 'Entry',
      summary: 'One line of text.',
      anatomy: {
        part: 'root',
        kind: 'stack',
        children: [
          { part: 'label', kind: 'label', content: 'label' },
          {
            part: 'frame',
            kind: 'row',
            children: [
              { part: 'control', kind: 'control', content: 'value', element: 'input', type: 'text' },
            ],
          },
          { part: 'message', kind: 'text', content: 'message' },
        ],
      },
      axes: ['pointer', 'focus', 'content', 'validity', 'availability'].map(axis => ({
        id: axis,
        kind: 'state',
      })),
      limits: [
        {
          while: { availability: 'disabled' },
          holds: { pointer: 'away', focus: 'out', validity: 'none' },
          because: 'A disabled control takes no focus and answers no pointer.',
        },
        {
          while: { content: 'empty' },
          holds: { validity: ['none', 'invalid'] },
          because: 'Nothing entered cannot have been approved.',
        },
      ],
      rules: [
        {
          id: 'base',
          when: {},
          set: {
            root: { gap: '4px', color: '{color.ink}', 'font-size': '14px' },
            label: { 'font-weight': '600' },
            frame: {
              height: '{size.height}',
              'padding-inline': '{size.inset}',
              'align-items': 'center',
              'border-width': '{size.line}',
              'border-color': '{color.line}',
              'border-radius': '{size.corner}',
            },
            message: { present: 'false', color: '{color.wrong}' },
          },
        },
        { id: 'empty', when: { content: 'empty' }, set: { control: { color: '{color.hint}' } } },
        { id: 'over', when: { pointer: 'over' }, set: { frame: { 'border-color': '{color.over}' } } },
        {
          id: 'focused',
          when: { focus: 'keyboard' },
          set: {
            frame: { 'outline-style': 'solid', 'outline-width': '2px', 'outline-color': '{color.over}' },
          },
        },
        {
          id: 'invalid',
          when: { validity: 'invalid' },
          set: { frame: { 'border-color': '{color.wrong}' }, message: { present: 'true' } },
        },
        { id: 'disabled', when: { availability: 'disabled' }, set: { root: { opacity: '0.5' } } },
      ],
      situations: [
        { id: 'at-rest', title: 'At rest', when: { content: 'empty' }, means: 'Nobody is at it.' },
        {
          id: 'pointed-at',
          title: 'Pointed at',
          when: { pointer: 'over' },
          means: 'Says that pressing does something.',
        },
        { id: 'focused', title: 'Focused', when: { focus: 'keyboard' }, means: 'The next key goes here.' },
        { id: 'filled', title: 'Filled', when: { content: 'filled' }, means: 'Something was entered.' },
        {
          id: 'invalid',
          title: 'Invalid',
          when: { content: 'filled', validity: 'invalid' },
          means: 'It cannot be accepted as it is.',
        },
        {
          id: 'disabled',
          title: 'Disabled',
          when: { availability: 'disabled' },
          means: 'It has no part in this form as things stand.',
        },
      ],
      samples: [
        {
          id: 'plain',
          title: 'Plain',
          content: {
            label: 'Label',
            placeholder: 'Placeholder',
            value: 'Entry',
            message: { invalid: 'What is wrong' },
          },
        },
      ],
      plates: [{ id: 'situations', title: 'Situations', across: ['situation'], down: [], sample: 'plain' }],
    },
  };
}
