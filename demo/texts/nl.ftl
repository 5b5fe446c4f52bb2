# The texts of Slack Water in Dutch: its titles, and its prompts. A brace is written {"{"} in Fluent.

game = Doodtij
situation-deck = Aan dek
situation-helm = Aan het roer
situation-crane = In de kraan
situation-chart = Aan de kaartentafel
situation-hail = De haven oproepen
situation-pause = Gepauzeerd
group-moving = Bewegen
group-always = Altijd
action-walk = Lopen
action-walk-up = Naar de boeg lopen
action-walk-down = Naar de achtersteven lopen
action-walk-left = Naar bakboord lopen
action-walk-right = Naar stuurboord lopen
action-hurry = Haasten
action-cast-off = Losgooien
action-coil-rope = Touw opschieten
action-lantern = Lantaarn
action-map-table = Kaartentafel
action-steer = Sturen
action-steer-left = Naar bakboord sturen
action-steer-right = Naar stuurboord sturen
action-throttle = Vaart
action-horn = Hoorn
action-swing = Giek zwenken
action-swing-left = Naar bakboord zwenken
action-swing-right = Naar stuurboord zwenken
action-hoist = Hijsen en vieren
action-hoist-up = Hijsen
action-hoist-down = Vieren
action-fine = Fijne besturing
action-stow-1 = Voorin stuwen
action-stow-2 = Midscheeps stuwen
action-stow-3 = Achterin stuwen
action-pan = Kaart verschuiven
action-pan-up = Kaart omhoog
action-pan-down = Kaart omlaag
action-pan-left = Kaart naar links
action-pan-right = Kaart naar rechts
action-zoom = Zoomen
action-zoom-up = Inzoomen
action-zoom-down = Uitzoomen
action-send = Verzenden
action-resume = Verdergaan
action-photo = Foto maken
# gone from the game; told of when an old profile has it
action-bilge-pump = Lenspomp
preset-left-handed = Linkshandig
preset-skipper = Schipper, linkerhelft van het toetsenbord
preset-deckhand = Dekknecht, rechterhelft van het toetsenbord
touch-stick = loopstick
    .object = de loopstick
touch-rope = tros
    .object = de tros
touch-coil = rol touw
    .object = de rol touw
touch-port = bakboordzijde
    .object = de bakboordzijde
touch-starboard = stuurboordzijde
    .object = de stuurboordzijde
touch-throttle = gashendel
    .object = de gashendel
touch-horn = hoorn
    .object = de hoorn
leave = {"{do:cast-off}"} om los te gooien
coil = {"{do:coil-rope}"} om het touw op te schieten
steer = {"{steer}"} om te sturen, {"{throttle}"} voor meer vaart
chart = {"{map-table}"} opent de kaart, {"{zoom.up}"} en {"{zoom.down}"} zoomen
stow =
    { $berth ->
        [bow] {"{do:stow-1}"} om voorin te stuwen
        [stern] {"{do:stow-3}"} om achterin te stuwen
       *[other] {"{do:stow-2}"} om midscheeps te stuwen
    }
at-deck = {"{do:cast-off}"} om los te gooien, {"{walk}"} om te lopen, {"{do:coil-rope}"} om het touw op te schieten
at-helm = {"{steer}"} om te sturen, {"{throttle}"} voor meer vaart, {"{do:horn}"} voor de hoorn
at-crane = {"{swing}"} om te zwenken, {"{hoist}"} om te hijsen, {"{fine}"} voor precisie
at-chart = {"{pan}"} om de kaart te verschuiven, {"{zoom.up}"} en {"{zoom.down}"} om te zoomen
at-pause = {"{do:resume}"} om verder te gaan
