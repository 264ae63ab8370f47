/** What works a job out. It is fetched behind the first picture, which the server has worked out already. */
export { evaluate } from '@/core/assess/evaluate'
export { applyOperation, describeOperation } from '@/core/job/operations'
