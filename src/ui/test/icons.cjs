// an empty drawing for each of the fifteen hundred icons, which no test looks at and each would have made anew
const { createElement } = require('react')

const Icon = ({ size, ...rest }) => createElement('svg', { 'aria-hidden': !rest['aria-label'], ...rest })
module.exports = new Proxy({}, { get: (_, name) => (name === '__esModule' ? false : Icon) })
