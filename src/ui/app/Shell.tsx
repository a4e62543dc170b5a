import { ActionIcon, useComputedColorScheme, useMantineColorScheme } from '@mantine/core'
import { IconMoon, IconSun } from '@tabler/icons-react'
import { Link, NavLink, Outlet } from 'react-router'
import { Opened } from '../parts/Opened'
import { Troubles } from '../parts/Troubles'
import classes from './shell.module.css'
import { VersionLine } from './VersionLine'

/** The frame of every screen: the name, the way back to all combinations, light and dark. */
export function Shell() {
  const { setColorScheme } = useMantineColorScheme()
  const scheme = useComputedColorScheme('light')
  const isDark = scheme === 'dark'
  return (
    <div className={classes.shell}>
      <header className={classes.header}>
        <Link
          to="/"
          className={`display ${classes.brand}`}
          aria-label="Molten Sway, all combinations"
        >
          Molten<span>Sway</span>
          <svg viewBox="0 0 120 8" aria-hidden>
            <path d="M2 4 q 14 -5 28 0 t 28 0 t 28 0 t 30 -1" />
          </svg>
        </Link>
        <nav aria-label="Main">
          <NavLink to="/" end>
            Combinations
          </NavLink>
          <NavLink to="/plans">Plans</NavLink>
          <NavLink to="/songs">Songs</NavLink>
          <NavLink to="/diary">Diary</NavLink>
          <NavLink to="/moves">Moves</NavLink>
          <NavLink to="/house">House rules</NavLink>
        </nav>
        <ActionIcon
          variant="subtle"
          color="gray"
          className={classes.scheme}
          aria-label={isDark ? 'Daylight colours' : 'Evening colours'}
          onClick={() => setColorScheme(isDark ? 'light' : 'dark')}
        >
          {isDark ? <IconSun size={20} /> : <IconMoon size={20} />}
        </ActionIcon>
      </header>
      <Troubles />
      <VersionLine />
      <Opened />
      <Outlet />
    </div>
  )
}
