export interface JobParams {
  params: Promise<{ id: string }>
}
