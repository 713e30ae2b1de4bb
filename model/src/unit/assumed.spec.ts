import { entryOf } from '@hot-spline/core';
import { deriveBuild } from '../assembly/derive';
import { settleAssumed } from '../document/assumed';
import type { Build } from '../frame/document';
import { startBuild } from '../start/start-build';
import { assumedOfType } from './assumed';
import { unitAs } from './new-unit';

const answers = { name: 'New', vehicle: '', use: 'circuit', driven: 'rear', power: 'manual', axle: null } as const;

/** As the sheet does it: the type, and what that leaves assumed. */
function chosen(before: Build, type: NonNullable<Build['axles']['rear']>['unit']['type']): Build {
  const after = structuredClone(before);
  const rear = after.axles.rear;
  if (!rear) throw new Error('no rear axle');
  const unit = rear.unit;
  rear.unit = unitAs(unit, type);
  after.assumed = assumedOfType(after.assumed, 'rear', unit, rear.unit);
  return settleAssumed(before, after);
}
const changed = (before: Build, recipe: (build: Build) => void): Build => {
  const after = structuredClone(before);
  recipe(after);
  return settleAssumed(before, after);
};
const ofUnit = ({ assumed }: Build): string[] =>
  assumed.filter((path) => path.startsWith('axles.rear.unit')).map((path) => path.replace('axles.rear.unit', ''));
const found = (build: Build, id: string) => deriveBuild(build, []).findings.find((one) => one.id === id);

describe('choosing a type of unit', () => {
  it('says the type only: ramps, friction, plates, target and depth stay assumed', () => {
    const build = chosen(startBuild(answers), 'plate');
    expect(ofUnit(build)).toEqual([
      '.plate.action',
      '.plate.driveRamp',
      '.plate.overrunRamp',
      '.plate.frictionCoefficient',
      '.plate.targetHeight',
      '.plate.packs.left.caseDepth',
      '.plate.packs.left.members',
      '.plate.packs.right.caseDepth',
      '.plate.packs.right.members',
    ]);
    expect(ofUnit(chosen(startBuild(answers), 'helical'))).toEqual(['.helical']);
    expect(ofUnit(chosen(startBuild(answers), 'spool'))).toEqual([]);
  });

  it('nothing assumed raises a stop, or fits', () => {
    for (const type of ['plate', 'side-gear-thrust', 'helical', 'friction-insert'] as const)
      for (const { id, verdict, place } of deriveBuild(chosen(startBuild(answers), type), []).findings)
        if (place.sheet === 'pack' || place.sheet === 'unit')
          expect(verdict).withContext(`${type} ${id}`).toBe('not-yet');
  });

  it('what is typed then is said, and nothing else; what is left is named, and leads to its field', () => {
    let build = chosen(startBuild(answers), 'plate');
    build = changed(build, (draft) => {
      if (draft.axles.rear?.unit.plate) draft.axles.rear.unit.plate.driveRamp = entryOf(45, '°');
    });
    expect(ofUnit(build)).not.toContain('.plate.driveRamp');
    expect(ofUnit(build)).toContain('.plate.overrunRamp');
    const left = found(build, 'assumed.rear.unit');
    expect(left?.say('metric').title).toContain('friction, target height');
    expect(left?.say('metric').title).not.toContain('drive ramp');
    expect(left?.place).toEqual(jasmine.objectContaining({ sheet: 'unit', field: 'unit-action' }));
  });

  it('what was said before stays said where another type is tried', () => {
    let build = chosen(startBuild(answers), 'plate');
    build = { ...build, assumed: build.assumed.filter((path) => !path.startsWith('axles.rear.unit')) };
    const there = chosen(build, 'helical');
    expect(ofUnit(there)).toEqual(['.helical']);
    expect(ofUnit(chosen(there, 'plate')).filter((path) => path.startsWith('.plate'))).toEqual([]);
  });

  it('a goal asks only for what it uses', () => {
    const drag = startBuild({ ...answers, use: 'drag' });
    const brief = (build: Build) => found(build, 'assumed.brief')?.facts['left'];
    const distance = changed(drag, (draft) => (draft.brief.distance = entryOf(300, 'm')));
    expect(String(brief(distance) ?? '')).not.toContain('crawl');
  });
});
