/** The theme's colours that drawing needs, read once a theme. */
export interface PlateColours {
  readonly paper: string;
  readonly plate: string;
  readonly line: string;
  readonly ink: string;
  readonly softInk: string;
  /** Where the plan cuts what is solid. */
  readonly solid: string;
  readonly stone: string;
  /** Behind the model: overhead, and where it meets the ground. */
  readonly sky: string;
  readonly haze: string;
  readonly floor: string;
  readonly brine: string;
  readonly kiln: string;
  readonly good: string;
  readonly near: string;
  readonly over: string;
  readonly divider: string;
  readonly volume: string;
  readonly path: string;
  readonly link: string;
  readonly costHigh: string;
  /** Of nothing, of as much as a limit allows, of just over it, of far over it. */
  readonly costNone: string;
  readonly costLimit: string;
  readonly costOver: string;
  readonly costFar: string;
}

/** Reads the roles of the theme from the page. */
export function readPlateColours(element: HTMLElement): PlateColours {
  const style = getComputedStyle(element);
  const of = (role: string): string => style.getPropertyValue(`--${role}`).trim();
  return {
    paper: of('paper'),
    plate: of('plate'),
    line: of('line'),
    ink: of('ink'),
    softInk: of('soft-ink'),
    solid: of('solid'),
    stone: of('stone'),
    sky: of('sky'),
    haze: of('haze'),
    floor: of('floor'),
    brine: of('brine'),
    kiln: of('kiln'),
    good: of('good'),
    near: of('near'),
    over: of('over'),
    divider: of('divider'),
    volume: of('role-events'),
    path: of('near'),
    link: of('soft-ink'),
    costHigh: of('cost-high'),
    costNone: of('cost-none'),
    costLimit: of('cost-limit'),
    costOver: of('cost-over'),
    costFar: of('cost-far'),
  };
}
