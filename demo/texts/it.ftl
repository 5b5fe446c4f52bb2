# The texts of Slack Water in Italian: its titles, and its prompts. A brace is written {"{"} in Fluent.

game = Stanca d'acqua
situation-deck = In coperta
situation-helm = Al timone
situation-crane = Nella gru
situation-chart = Al tavolo da carteggio
situation-hail = Chiamare il porto
situation-pause = In pausa
group-moving = Movimento
group-always = Sempre
action-walk = Camminare
action-walk-about = Sul ponte, da prua a poppa.
action-walk-up = Andare a prua
action-walk-down = Andare a poppa
action-walk-left = Andare a sinistra
action-walk-right = Andare a dritta
action-hurry = Affrettarsi
action-hurry-about = Cammina più in fretta finché è premuto.
action-cast-off = Mollare gli ormeggi
action-cast-off-about = Molla l’ultima cima: la chiatta è in viaggio.
action-coil-rope = Cogliere la cima
action-coil-rope-about = Recupera l’imbando finché in acqua non resta nessuna cima.
action-lantern = Lanterna
action-lantern-about = Accesa, ti rende visibile nella nebbia e illumina la carta.
action-map-table = Tavolo da carteggio
action-map-table-about = Apre la carta dell’estuario.
action-steer = Governare
action-steer-left = Virare a sinistra
action-steer-right = Virare a dritta
action-throttle = Gas
action-throttle-about = La velocità dell’elica.
action-horn = Tromba
action-horn-about = Avverte chi è sulla rotta.
action-swing = Girare il braccio
action-swing-left = Girare a sinistra
action-swing-right = Girare a dritta
action-hoist = Alzare e calare
action-hoist-up = Alzare
action-hoist-down = Calare
action-fine = Controllo fine
action-fine-about = Rallenta la gru per lavorare vicino a un sommozzatore.
action-stow-1 = Stivare a prua
action-stow-2 = Stivare al centro
action-stow-3 = Stivare a poppa
action-pan = Spostare la carta
action-pan-up = Carta su
action-pan-down = Carta giù
action-pan-left = Carta a sinistra
action-pan-right = Carta a destra
action-zoom = Zoom
action-zoom-up = Ingrandire
action-zoom-down = Ridurre
action-send = Inviare
action-resume = Riprendere
action-photo = Fotografare
# gone from the game; told of when an old profile has it
action-bilge-pump = Pompa di sentina
preset-left-handed = Mancino
preset-skipper = Comandante, metà sinistra della tastiera
preset-deckhand = Marinaio, metà destra della tastiera
touch-stick = levetta per camminare
    .object = la levetta per camminare
touch-rope = cima
    .object = la cima
touch-coil = duglia
    .object = la duglia
touch-port = lato di sinistra
    .object = il lato di sinistra
touch-starboard = lato di dritta
    .object = il lato di dritta
touch-throttle = manetta
    .object = la manetta
touch-horn = tromba
    .object = la tromba

leave = {"{do:cast-off}"} per salpare
coil = {"{do:coil-rope}"} per cogliere la cima
steer = {"{steer}"} per governare, {"{throttle}"} per accelerare
chart = {"{map-table}"} apre la carta, {"{zoom.up}"} e {"{zoom.down}"} cambiano lo zoom
stow =
    { $berth ->
        [bow] {"{do:stow-1}"} per stivare a prua
        [stern] {"{do:stow-3}"} per stivare a poppa
       *[other] {"{do:stow-2}"} per stivare al centro
    }
at-deck = {"{do:cast-off}"} per salpare, {"{walk}"} per camminare, {"{do:coil-rope}"} per cogliere la cima
at-helm = {"{steer}"} per governare, {"{throttle}"} per accelerare, {"{do:horn}"} per la tromba
at-crane = {"{swing}"} per girare, {"{hoist}"} per alzare, {"{fine}"} per la precisione
at-chart = {"{pan}"} per spostare la carta, {"{zoom.up}"} e {"{zoom.down}"} per lo zoom
at-pause = {"{do:resume}"} per continuare
