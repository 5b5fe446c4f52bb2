# The texts of Slack Water in Czech: its titles, and its prompts. A brace is written {"{"} in Fluent.

game = Mrtvá voda
situation-deck = Na palubě
situation-helm = U kormidla
situation-crane = V jeřábu
situation-chart = U mapového stolu
situation-hail = Volání přístavu
situation-pause = Pauza
group-moving = Pohyb
group-always = Vždy
action-walk = Chůze
action-walk-up = Jít k přídi
action-walk-down = Jít k zádi
action-walk-left = Jít k levoboku
action-walk-right = Jít k pravoboku
action-hurry = Pospíšit si
action-cast-off = Odvázat loď
action-coil-rope = Smotat lano
action-lantern = Lucerna
action-map-table = Mapový stůl
action-steer = Kormidlovat
action-steer-left = Kormidlo doleva
action-steer-right = Kormidlo doprava
action-throttle = Plyn
action-horn = Houkačka
action-swing = Otáčet výložník
action-swing-left = Otočit doleva
action-swing-right = Otočit doprava
action-hoist = Zvedat a spouštět
action-hoist-up = Zvednout
action-hoist-down = Spustit
action-fine = Jemné ovládání
action-stow-1 = Uložit na příď
action-stow-2 = Uložit doprostřed
action-stow-3 = Uložit na záď
action-pan = Posouvat mapu
action-pan-up = Mapa nahoru
action-pan-down = Mapa dolů
action-pan-left = Mapa doleva
action-pan-right = Mapa doprava
action-zoom = Přiblížení
action-zoom-up = Přiblížit
action-zoom-down = Oddálit
action-send = Odeslat
action-resume = Pokračovat
action-photo = Vyfotit
# gone from the game; told of when an old profile has it
action-bilge-pump = Drenážní čerpadlo
preset-left-handed = Pro leváky
preset-skipper = Lodník, levá polovina klávesnice
preset-deckhand = Palubní hoch, pravá polovina klávesnice
touch-stick = páčka chůze
    .object = páčku chůze
    .with = páčkou chůze
touch-rope = lano
    .with = lanem
touch-coil = smotek lana
    .with = smotkem lana
touch-port = levobok
    .with = levobokem
touch-starboard = pravobok
    .with = pravobokem
touch-throttle = páka plynu
    .object = páku plynu
    .with = pákou plynu
touch-horn = houkačka
    .object = houkačku
    .with = houkačkou
leave = {"{do:cast-off}"} a odvaž loď
coil = {"{do:coil-rope}"} a smotej lano
steer = {"{steer}"}: kormidlo, {"{throttle}"}: víc plynu
chart = {"{map-table}"}: mapa, {"{zoom.up}"} a {"{zoom.down}"}: přiblížení
stow =
    { $berth ->
        [bow] {"{do:stow-1}"} a ulož náklad na příď
        [stern] {"{do:stow-3}"} a ulož náklad na záď
       *[other] {"{do:stow-2}"} a ulož náklad doprostřed
    }
at-deck = {"{do:cast-off}"} a odvaž loď. {"{walk}"}: chůze. {"{do:coil-rope}"} a smotej lano
at-helm = {"{steer}"}: kormidlo, {"{throttle}"}: plyn. {"{do:horn}"} a zahoukej
at-crane = {"{swing}"}: otáčení, {"{hoist}"}: zvedání, {"{fine}"}: jemně
at-chart = {"{pan}"}: posun mapy, {"{zoom.up}"} a {"{zoom.down}"}: přiblížení
at-pause = {"{do:resume}"} a pokračuj
