import { createTheme, ThemeProvider } from '@rneui/themed/dist/config';
import { Slot } from 'expo-router';

const theme = createTheme({});

export default function Layout() {
  return (
    <ThemeProvider theme={theme}>
      <Slot />
    </ThemeProvider>
  );
}
