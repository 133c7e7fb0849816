/** No id has it. */
const BETWEEN = '~';

/** What a section's bake goes by: ids of recipes are unique in their stratum alone. */
export function sectionSubject(stratum: string, recipe: string): string {
  return `${stratum}${BETWEEN}${recipe}`;
}

/** Stratum and recipe of a section's bake. */
export function recipeOf(subject: string): { readonly stratum: string; readonly recipe: string } {
  const [stratum, recipe = ''] = subject.split(BETWEEN);
  return { stratum, recipe };
}
