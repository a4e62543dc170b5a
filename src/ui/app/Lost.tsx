import { Link, useRouteError } from 'react-router'
import { ProblemPage } from '../parts/Problem'

/** A page that is not there, or one that broke. Stored work is not touched by either. */
export function Lost() {
  const error = useRouteError()
  return (
    <ProblemPage
      what={error ? 'This screen stopped working.' : 'There is nothing at this address.'}
      toDo="Your combinations are safe. Go back to them and open the one you want again."
    >
      <p style={{ textAlign: 'center' }}>
        <Link to="/" reloadDocument>
          All combinations
        </Link>
      </p>
    </ProblemPage>
  )
}
