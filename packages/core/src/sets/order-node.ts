/** Size of a level in the graph of the order of play, pixels. */
export const ORDER_NODE = { width: 172, height: 42 } as const;
