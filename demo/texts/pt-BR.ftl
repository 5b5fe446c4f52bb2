# The texts of Slack Water in Brazilian Portuguese: its titles, and its prompts. A brace is written {"{"} in Fluent.

game = Estofo
situation-deck = No convés
situation-helm = No leme
situation-crane = No guindaste
situation-chart = Na mesa de cartas
situation-hail = Chamar o porto
situation-pause = Pausado
group-moving = Movimento
group-always = Sempre
action-walk = Andar
action-walk-about = Pelo convés, da proa à popa.
action-walk-up = Andar para a proa
action-walk-down = Andar para a popa
action-walk-left = Andar para bombordo
action-walk-right = Andar para boreste
action-hurry = Apressar-se
action-hurry-about = Anda mais rápido enquanto pressionado.
action-cast-off = Zarpar
action-cast-off-about = Solta o último cabo: a barcaça está a caminho.
action-coil-rope = Colher o cabo
action-coil-rope-about = Recolhe o cabo até não restar nada na água.
action-lantern = Lampião
action-lantern-about = Acesa, os outros veem você na neblina, e você vê a carta.
action-map-table = Mesa de cartas
action-map-table-about = Abre a carta do estuário.
action-steer = Pilotar
action-steer-left = Virar para bombordo
action-steer-right = Virar para boreste
action-throttle = Aceleração
action-throttle-about = A velocidade da hélice.
action-horn = Buzina
action-horn-about = Avisa quem está no caminho.
action-swing = Girar a lança
action-swing-left = Girar para bombordo
action-swing-right = Girar para boreste
action-hoist = Içar e baixar
action-hoist-up = Içar
action-hoist-down = Baixar
action-fine = Controle fino
action-fine-about = Desacelera o guindaste para trabalhar perto de um mergulhador.
action-stow-1 = Estivar na proa
action-stow-2 = Estivar a meia-nau
action-stow-3 = Estivar na popa
action-pan = Mover a carta
action-pan-up = Carta para cima
action-pan-down = Carta para baixo
action-pan-left = Carta para a esquerda
action-pan-right = Carta para a direita
action-zoom = Zoom
action-zoom-up = Aproximar
action-zoom-down = Afastar
action-send = Enviar
action-resume = Continuar
action-photo = Fotografar
# gone from the game; told of when an old profile has it
action-bilge-pump = Bomba de porão
preset-left-handed = Canhoto
preset-skipper = Mestre, metade esquerda do teclado
preset-deckhand = Marujo, metade direita do teclado
touch-stick = analógico de andar
    .object = o analógico de andar
    .at = no analógico de andar
touch-rope = cabo
    .object = o cabo
    .at = no cabo
touch-coil = rolo de cabo
    .object = o rolo de cabo
    .at = no rolo de cabo
touch-port = lado de bombordo
    .object = o lado de bombordo
    .at = no lado de bombordo
touch-starboard = lado de boreste
    .object = o lado de boreste
    .at = no lado de boreste
touch-throttle = alavanca do acelerador
    .object = a alavanca do acelerador
    .at = na alavanca do acelerador
touch-horn = buzina
    .object = a buzina
    .at = na buzina

leave = {"{do:cast-off}"} para zarpar
coil = {"{do:coil-rope}"} para colher o cabo
steer = {"{steer}"} para pilotar, {"{throttle}"} para acelerar
chart = {"{map-table}"} abre a carta, {"{zoom.up}"} e {"{zoom.down}"} mudam o zoom
stow =
    { $berth ->
        [bow] {"{do:stow-1}"} para estivar na proa
        [stern] {"{do:stow-3}"} para estivar na popa
       *[other] {"{do:stow-2}"} para estivar a meia-nau
    }
at-deck = {"{do:cast-off}"} para zarpar, {"{walk}"} para andar, {"{do:coil-rope}"} para colher o cabo
at-helm = {"{steer}"} para pilotar, {"{throttle}"} para acelerar, {"{do:horn}"} para a buzina
at-crane = {"{swing}"} para girar, {"{hoist}"} para içar, {"{fine}"} para afinar
at-chart = {"{pan}"} para mover a carta, {"{zoom.up}"} e {"{zoom.down}"} para o zoom
at-pause = {"{do:resume}"} para continuar
