# The texts of Slack Water in German: its titles, and its prompts. A brace is written {"{"} in Fluent.

game = Stauwasser
situation-deck = An Deck
situation-helm = Am Ruder
situation-crane = Im Kran
situation-chart = Am Kartentisch
situation-hail = Den Hafen rufen
situation-pause = Pause
group-moving = Bewegung
group-always = Immer
action-walk = Gehen
action-walk-about = Über das Deck, vom Bug bis zum Heck.
action-walk-up = Zum Bug gehen
action-walk-down = Zum Heck gehen
action-walk-left = Nach Backbord gehen
action-walk-right = Nach Steuerbord gehen
action-hurry = Eilen
action-hurry-about = Geht schneller, solange die Taste unten ist.
action-cast-off = Ablegen
action-cast-off-about = Löst die letzte Leine: Der Kahn ist unterwegs.
action-coil-rope = Leine aufschießen
action-coil-rope-about = Holt die Lose ein, bis keine Leine mehr im Wasser ist.
action-lantern = Laterne
action-lantern-about = Brennt sie, sehen dich andere im Nebel, und du siehst die Karte.
action-map-table = Kartentisch
action-map-table-about = Öffnet die Karte der Flussmündung.
action-steer = Steuern
action-steer-left = Nach Backbord steuern
action-steer-right = Nach Steuerbord steuern
action-throttle = Fahrt
action-throttle-about = Wie schnell die Schraube dreht.
action-horn = Horn
action-horn-about = Warnt alle, die im Weg sind.
action-swing = Ausleger schwenken
action-swing-left = Nach Backbord schwenken
action-swing-right = Nach Steuerbord schwenken
action-hoist = Heben und senken
action-hoist-up = Heben
action-hoist-down = Senken
action-fine = Feinsteuerung
action-fine-about = Macht den Kran langsamer, für Arbeit nahe an Tauchern.
action-stow-1 = Vorn verstauen
action-stow-2 = Mittschiffs verstauen
action-stow-3 = Achtern verstauen
action-pan = Karte verschieben
action-pan-up = Karte nach oben
action-pan-down = Karte nach unten
action-pan-left = Karte nach links
action-pan-right = Karte nach rechts
action-zoom = Zoom
action-zoom-up = Vergrößern
action-zoom-down = Verkleinern
action-send = Senden
action-resume = Fortsetzen
action-photo = Fotografieren
# gone from the game; told of when an old profile has it
action-bilge-pump = Lenzpumpe
preset-left-handed = Linkshändig
preset-skipper = Schiffer, linke Tastaturhälfte
preset-deckhand = Decksmann, rechte Tastaturhälfte
touch-stick = Laufstick
    .object = den Laufstick
touch-rope = Tau
    .object = das Tau
touch-coil = Seilrolle
    .object = die Seilrolle
touch-port = Backbordseite
    .object = die Backbordseite
touch-starboard = Steuerbordseite
    .object = die Steuerbordseite
touch-throttle = Gashebel
    .object = den Gashebel
touch-horn = Horn
    .object = das Horn

leave = {"{do:cast-off}"}, um abzulegen
coil = {"{do:coil-rope}"}, um die Leine aufzuschießen
steer = {"{steer}"} zum Steuern, {"{throttle}"} für mehr Fahrt
chart = {"{map-table}"} öffnet die Karte, {"{zoom.up}"} und {"{zoom.down}"} zoomen
stow =
    { $berth ->
        [bow] {"{do:stow-1}"}: vorn verstauen
        [stern] {"{do:stow-3}"}: achtern verstauen
       *[other] {"{do:stow-2}"}: mittschiffs verstauen
    }
at-deck = {"{do:cast-off}"}, um abzulegen; {"{walk}"} zum Gehen; {"{do:coil-rope}"}, um die Leine aufzuschießen
at-helm = {"{steer}"} zum Steuern, {"{throttle}"} für mehr Fahrt, {"{do:horn}"} für das Horn
at-crane = {"{swing}"} zum Schwenken, {"{hoist}"} zum Heben, {"{fine}"} für Feinarbeit
at-chart = {"{pan}"} verschiebt die Karte, {"{zoom.up}"} und {"{zoom.down}"} zoomen
at-pause = {"{do:resume}"}, um weiterzumachen
