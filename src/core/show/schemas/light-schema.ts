import { checked, COLOUR, either, list, maybe, number, object, oneOf, type Schema } from '../../schema/schema';
import { PRINT_EFFECTS, type Light } from '../light';
import { AMOUNT, channel, SHARE } from './channel-schema';

interface Points {
  readonly black: number;
  readonly white: number;
}

const POINTS = checked<Points>(object<Points>({ black: number(0, 1), white: number(0, 1) }), ({ black, white }) =>
  white > black ? null : 'white must lie above black',
);

export const LIGHT: Schema = object<Light>({
  exposure: maybe(channel(-4, 4)),
  contrast: maybe(AMOUNT),
  highlights: maybe(AMOUNT),
  shadows: maybe(AMOUNT),
  temperature: maybe(AMOUNT),
  tint: maybe(AMOUNT),
  saturation: maybe(AMOUNT),
  vibrance: maybe(AMOUNT),
  levels: maybe(either({ when: 'string', then: oneOf(['automatic']) }, { when: 'object', then: POINTS })),
  blackAndWhite: maybe(SHARE),
  sepia: maybe(SHARE),
  paling: maybe(SHARE),
  tone: maybe(object<NonNullable<Light['tone']>>({ colour: COLOUR, amount: maybe(SHARE) })),
  vignette: maybe(SHARE),
  sharpen: maybe(number(0, 1)),
  print: maybe(object<NonNullable<Light['print']>>({ kind: oneOf(PRINT_EFFECTS), strength: number(0, 1) })),
  redEyes: maybe(
    list(
      object<{ x: number; y: number; radius: number }>({
        x: number(0, 1),
        y: number(0, 1),
        radius: number(0.0005, 0.5),
      }),
      100,
    ),
  ),
});
