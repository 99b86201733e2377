import { createContext, useContext, type ComponentType, type ReactNode } from 'react';

export interface FrameProps {
  /** Where one is, from the library on. */
  crumbs: readonly string[];
  /** Whether what stands on the page is saved. */
  status?: ReactNode;
  children: ReactNode;
}

/** The frame of every screen; the shell gives its own. */
export const FrameContext = createContext<ComponentType<FrameProps>>(({ children }) => (
  <>{children}</>
));

/** A screen within the frame. */
export function PageFrame(props: FrameProps) {
  const Frame = useContext(FrameContext);
  return <Frame {...props} />;
}
