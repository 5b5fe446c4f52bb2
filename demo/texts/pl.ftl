# The texts of Slack Water in Polish: its titles, and its prompts. A brace is written {"{"} in Fluent.

game = Stojąca woda
situation-deck = Na pokładzie
situation-helm = Za sterem
situation-crane = W dźwigu
situation-chart = Przy stole z mapami
situation-hail = Wołanie portu
situation-pause = Pauza
group-moving = Poruszanie się
group-always = Zawsze
action-walk = Chodzenie
action-walk-about = Po pokładzie, od dziobu po rufę.
action-walk-up = Idź na dziób
action-walk-down = Idź na rufę
action-walk-left = Idź na lewą burtę
action-walk-right = Idź na prawą burtę
action-hurry = Pośpiech
action-hurry-about = Przyspiesza krok, dopóki jest wciśnięty.
action-cast-off = Odcumowanie
action-cast-off-about = Zwalnia ostatnią linę: barka rusza.
action-coil-rope = Zwijanie liny
action-coil-rope-about = Wybiera luz, aż w wodzie nie zostanie żadna lina.
action-lantern = Latarnia
action-lantern-about = Gdy świeci, inni widzą cię we mgle, a ty widzisz mapę.
action-map-table = Stół z mapami
action-map-table-about = Otwiera mapę ujścia rzeki.
action-steer = Sterowanie
action-steer-left = Ster w lewo
action-steer-right = Ster w prawo
action-throttle = Gaz
action-throttle-about = Jak szybko obraca się śruba.
action-horn = Syrena
action-horn-about = Ostrzega każdego, kto stoi na drodze.
action-swing = Obrót żurawia
action-swing-left = Obrót w lewo
action-swing-right = Obrót w prawo
action-hoist = Podnoszenie
action-hoist-up = Podnieś
action-hoist-down = Opuść
action-fine = Precyzyjne sterowanie
action-fine-about = Spowalnia dźwig do pracy w pobliżu nurka.
action-stow-1 = Ułóż na dziobie
action-stow-2 = Ułóż na śródokręciu
action-stow-3 = Ułóż na rufie
action-pan = Przesuwanie mapy
action-pan-up = Mapa w górę
action-pan-down = Mapa w dół
action-pan-left = Mapa w lewo
action-pan-right = Mapa w prawo
action-zoom = Powiększenie
action-zoom-up = Przybliż
action-zoom-down = Oddal
action-send = Wyślij
action-resume = Wznów
action-photo = Zrób zdjęcie
# gone from the game; told of when an old profile has it
action-bilge-pump = Pompa zęzowa
preset-left-handed = Leworęczny
preset-skipper = Szyper, lewa połowa klawiatury
preset-deckhand = Majtek, prawa połowa klawiatury
touch-stick = gałka chodzenia
    .object = gałkę chodzenia
touch-rope = lina
    .object = linę
touch-coil = zwój liny
    .object = zwój liny
touch-port = lewa burta
    .object = lewą burtę
touch-starboard = prawa burta
    .object = prawą burtę
touch-throttle = dźwignia gazu
    .object = dźwignię gazu
touch-horn = syrena
    .object = syrenę

leave = {"{do:cast-off}"}, aby odpłynąć
coil = {"{do:coil-rope}"}, aby zwinąć linę
steer = {"{steer}"}: sterowanie, {"{throttle}"}: więcej gazu
chart = {"{map-table}"} otwiera mapę, {"{zoom.up}"} i {"{zoom.down}"} zmieniają powiększenie
stow =
    { $berth ->
        [bow] {"{do:stow-1}"}, aby ułożyć na dziobie
        [stern] {"{do:stow-3}"}, aby ułożyć na rufie
       *[other] {"{do:stow-2}"}, aby ułożyć na śródokręciu
    }
at-deck = {"{do:cast-off}"}, aby odpłynąć; {"{walk}"}: chodzenie; {"{do:coil-rope}"}, aby zwinąć linę
at-helm = {"{steer}"}: sterowanie, {"{throttle}"}: więcej gazu; {"{do:horn}"}, aby zatrąbić
at-crane = {"{swing}"}: obrót, {"{hoist}"}: podnoszenie, {"{fine}"}: precyzja
at-chart = {"{pan}"}: przesuwanie mapy, {"{zoom.up}"} i {"{zoom.down}"}: powiększenie
at-pause = {"{do:resume}"}, aby grać dalej
