/** What of the board is not drawn at first: loaded when it is, or while nothing is to be done. */
export const loadCameraStrip = async () => ({
  default: (await import("./CameraStrip")).CameraStrip,
});
export const loadPlanStrip = async () => ({ default: (await import("./PlanStrip")).PlanStrip });
export const loadStopList = async () => ({ default: (await import("./StopList")).StopList });
