import { configure } from '@testing-library/react'

// a guard against what never comes, not a measure of speed: a busy machine takes several times as long
configure({ asyncUtilTimeout: 20_000 })
