/** x, y, z in metres; Y is up, right-handed. */
export type Vector3 = readonly [number, number, number];

/** x, z in metres: a point of the plan. */
export type PlanPoint = readonly [number, number];

/** Turn about Y (yaw), then about X (pitch), then about Z (roll), in degrees. */
export type TurnDegrees = readonly [yaw: number, pitch: number, roll: number];

/** An upright box in metres, least corner and greatest corner. */
export interface Box3 {
  readonly min: Vector3;
  readonly max: Vector3;
}
