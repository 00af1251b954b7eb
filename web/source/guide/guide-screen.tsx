import { Link, NavLink, useParams } from 'react-router';
import { componentNamed } from '@periwinkle/core/components/system';
import { useCarried, useContexts } from '../data/address';
import { useStore, useSystemPart } from '../data/system-context';
import { GuidePage } from './guide-page';

/** The guide: what the reader gets, one page for each field. */
export function GuideScreen() {
  const { componentId } = useParams();
  const system = useSystemPart('system');
  const { id } = useStore();
  const contexts = useContexts(system.tokens);
  const carried = useCarried();
  const component = componentId === undefined ? system.components[0] : componentNamed(system, componentId);
  const groups = [...new Set(system.components.map(each => each.group[0] ?? 'Fields'))];
  return (
    <div className="page">
      <nav aria-label="Pages of the guide">
        {groups.map(group => (
          <div key={group}>
            <h3>{group}</h3>
            {system.components
              .filter(each => (each.group[0] ?? 'Fields') === group)
              .map(each => (
                <NavLink
                  key={each.id}
                  to={`/${id}/guide/${each.id}${carried}`}
                  className={each === component ? 'active' : ''}
                >
                  {each.title}
                </NavLink>
              ))}
          </div>
        ))}
      </nav>
      {component ? (
        <GuidePage key={component.id} system={system} component={component} contexts={contexts} />
      ) : (
        <article>
          <h1>{system.components.length === 0 ? 'No pages yet' : 'No such page'}</h1>
          <p className="lead">
            <Link to={`/${id}${carried}`}>To the fields</Link>
          </p>
        </article>
      )}
    </div>
  );
}
