import type { ReadinessRules } from '../../model/readiness';
import type { ViewSettings } from '../../model/view-settings';
import type { CodePattern } from '../../model/code-pattern';
import { GROUP_COLOURS, type GroupTemplate, type GroupTemplatePart } from '../../model/group';
import { SQUARE_MARKS, SQUARE_ROLES, type SquareCode, type MovementRules } from '../../model/tile-floor';
import { codePatternFault } from '../../fields/code-pattern-fault';
import { collisionPatternFault } from '../../fields/collision-pattern';
import {
  type Field,
  ruled,
  text,
  oneOf,
  oneOfNumbers,
  finite,
  whole,
  flag,
  list,
  shape,
  orNull,
  later,
} from '../../fields/field';
import { id, name } from '../../fields/known-fields';
import type { StoredRecordSpec } from '../stored-spec';

/** Most codes of a legend. */
const MAX_CODES = 200;

const squareCode = (): Field<SquareCode> =>
  shape<SquareCode>({
    code: text({
      isFilled: true,
      pattern: {
        matches: /^[A-Za-z][A-Za-z0-9]{0,7}$/,
        message: 'must start with a letter, then letters and digits, eight at most',
      },
    }),
    name: name(),
    colour: oneOf(GROUP_COLOURS),
    mark: oneOf(SQUARE_MARKS),
    mayEnter: flag(),
    visits: whole(0, 999),
    height: whole(-999, 999),
    role: oneOf(SQUARE_ROLES),
  });

const groupTemplate = (): Field<GroupTemplate> =>
  shape<GroupTemplate>({
    name: name(),
    parts: ruled<readonly GroupTemplatePart[]>(
      list(
        shape<GroupTemplatePart>({
          name: name(),
          parent: orNull(whole(0)),
          category: text({ max: 200 }),
          colour: oneOf(GROUP_COLOURS),
        }),
        { min: 1, max: 100 },
      ),
      {
        name: 'parents',
        message: 'a part must be inside one that comes before it',
        holds: (parts) => parts.every(({ parent }, i) => parent === null || parent < i),
      },
    ),
  });

export const STORED_COLLECTION: StoredRecordSpec<'collection'> = {
  fields: () => ({
    id: id(),
    name: name(),
    ranks: list(name(), { min: 1, max: 8 }),
    view: later(
      shape<ViewSettings>({
        fieldOfViewDegrees: finite(1, 170),
        pictureHeightPixels: whole(16, 32768),
        errorPixels: finite(0.01, 1000),
      }),
    ),
    codes: later(
      shape<CodePattern>(
        { alphabet: text({ min: 2, max: 200 }), length: whole(1, 40) },
        {
          name: 'codes',
          message: 'must give codes: at least two different characters, none of them twice, no blanks',
          holds: (pattern) => codePatternFault(pattern) === null,
        },
      ),
    ),
    readiness: later(
      shape<ReadinessRules>({
        fields: list(id(), { max: 200 }),
        spawn: flag(),
        exit: flag(),
        code: flag(),
        bakes: flag(),
        findings: flag(),
        devices: list(id(), { max: 100 }),
      }),
    ),
    legend: later(
      ruled<readonly SquareCode[]>(list(squareCode(), { max: MAX_CODES }), {
        name: 'legend',
        message: 'each code may be in it once',
        holds: (codes) => new Set(codes.map(({ code }) => code)).size === codes.length,
      }),
    ),
    movement: later(
      shape<MovementRules>({
        neighbours: oneOfNumbers([4, 8]),
        upSteps: whole(0, 1000),
        downSteps: whole(0, 1000),
        mayFall: flag(),
      }),
    ),
    groupTemplates: later(list(groupTemplate(), { max: 100 })),
    collisionPattern: later(
      ruled(text({ max: 60 }), {
        name: 'collision pattern',
        message: 'must have {name} once, something beside it, and * only at its end',
        holds: (pattern) => collisionPatternFault(pattern) === '',
      }),
    ),
  }),
};
