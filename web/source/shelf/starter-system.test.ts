import { checkSystem } from '@periwinkle/core/checks/check-system';
import { outputFiles } from '@periwinkle/core/output/outputs';
import { starterDocuments } from './starter-system';

test.each(['harbour', 'tide-tables-and-buoys', 'q'])(
  'a new system “%s” is sound and can be delivered at once',
  id => {
    const { system, problems } = checkSystem(new Map(Object.entries(starterDocuments(id, 'A title'))));
    expect(problems).toEqual([]);
    const css = outputFiles(system).find(file => file.path === 'css/layered/field.css')!.text;
    expect(css).toContain(`@layer ${system.prefix}.field {`);
    expect(css).toMatch(/:focus-visible/);
    expect(system.components[0]!.space.count()).toBeGreaterThan(50n);
  },
);
