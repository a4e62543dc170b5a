import '../page/page.css'
import './practice.css'
import { markOf, type PageData } from '../core/practice/pageData'
import { marksOf } from './marks'
import { Screen } from './screen'

const data = document.getElementById('data')
const text = data?.textContent ?? ''
// What was changed on its way is not danced: the sentence in the page stays.
if (data?.dataset.mark === markOf(text)) {
  const page = JSON.parse(text) as PageData
  const root = document.createElement('div')
  root.id = 'page'
  document.getElementById('changed')?.remove()
  document.body.append(root)
  new Screen(page, marksOf(page), root)
}
