# The texts of Slack Water in Spanish: its titles, and its prompts. A brace is written {"{"} in Fluent.

game = Repunte
situation-deck = En cubierta
situation-helm = Al timón
situation-crane = En la grúa
situation-chart = En la mesa de cartas
situation-hail = Llamar al puerto
situation-pause = En pausa
group-moving = Moverse
group-always = Siempre
action-walk = Caminar
action-walk-about = Por la cubierta, de proa a popa.
action-walk-up = Ir a proa
action-walk-down = Ir a popa
action-walk-left = Ir a babor
action-walk-right = Ir a estribor
action-hurry = Darse prisa
action-hurry-about = Camina más rápido mientras se mantiene.
action-cast-off = Soltar amarras
action-cast-off-about = Suelta el último cabo: la barcaza se pone en marcha.
action-coil-rope = Adujar el cabo
action-coil-rope-about = Recoge el cabo hasta que no quede nada en el agua.
action-lantern = Farol
action-lantern-about = Encendida, te ven entre la niebla y tú ves la carta.
action-map-table = Mesa de cartas
action-map-table-about = Abre la carta del estuario.
action-steer = Gobernar
action-steer-left = Virar a babor
action-steer-right = Virar a estribor
action-throttle = Acelerador
action-throttle-about = La velocidad de la hélice.
action-horn = Bocina
action-horn-about = Avisa a quien esté en medio.
action-swing = Girar la pluma
action-swing-left = Girar a babor
action-swing-right = Girar a estribor
action-hoist = Subir y bajar
action-hoist-up = Subir
action-hoist-down = Bajar
action-fine = Control fino
action-fine-about = Frena la grúa para trabajar cerca de un buzo.
action-stow-1 = Estibar a proa
action-stow-2 = Estibar en el centro
action-stow-3 = Estibar a popa
action-pan = Mover la carta
action-pan-up = Carta arriba
action-pan-down = Carta abajo
action-pan-left = Carta a la izquierda
action-pan-right = Carta a la derecha
action-zoom = Zoom
action-zoom-up = Acercar
action-zoom-down = Alejar
action-send = Enviar
action-resume = Continuar
action-photo = Fotografiar
# gone from the game; told of when an old profile has it
action-bilge-pump = Bomba de achique
preset-left-handed = Zurdo
preset-skipper = Patrón, mitad izquierda del teclado
preset-deckhand = Marinero, mitad derecha del teclado
touch-stick = stick de andar
    .object = el stick de andar
touch-rope = cabo
    .object = el cabo
touch-coil = rollo de cabo
    .object = el rollo de cabo
touch-port = banda de babor
    .object = la banda de babor
touch-starboard = banda de estribor
    .object = la banda de estribor
touch-throttle = palanca de gas
    .object = la palanca de gas
touch-horn = bocina
    .object = la bocina

leave = {"{do:cast-off}"} para zarpar
coil = {"{do:coil-rope}"} para adujar el cabo
steer = {"{steer}"} para gobernar, {"{throttle}"} para ir más rápido
chart = {"{map-table}"} abre la carta, {"{zoom.up}"} y {"{zoom.down}"} la acercan y la alejan
stow =
    { $berth ->
        [bow] {"{do:stow-1}"} para estibar a proa
        [stern] {"{do:stow-3}"} para estibar a popa
       *[other] {"{do:stow-2}"} para estibar en el centro
    }
at-deck = {"{do:cast-off}"} para zarpar, {"{walk}"} para caminar, {"{do:coil-rope}"} para adujar el cabo
at-helm = {"{steer}"} para gobernar, {"{throttle}"} para ir más rápido, {"{do:horn}"} para la bocina
at-crane = {"{swing}"} para girar, {"{hoist}"} para subir, {"{fine}"} para afinar
at-chart = {"{pan}"} para mover la carta, {"{zoom.up}"} y {"{zoom.down}"} para el zoom
at-pause = {"{do:resume}"} para seguir
