import '../page/page.css'
import './follow.css'
import { FollowScreen } from './screen'

const root = document.createElement('div')
root.id = 'page'
document.getElementById('changed')?.remove()
document.body.append(root)
new FollowScreen(root)
