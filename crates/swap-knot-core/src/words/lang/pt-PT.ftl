# Words for players: Portuguese of Portugal; only what differs from Brazilian Portuguese.
# Not reviewed by somebody who grew up with it.
# keys
key-ContextMenu = tecla Menu
    .object = a tecla Menu
    .with = a tecla Menu
    .at = na tecla Menu
    .part = Menu
    .held = premida a tecla Menu
    .short = Menu
key-Space = barra de espaços
    .object = a barra de espaços
    .with = a barra de espaços
    .at = na barra de espaços
    .part = Espaço
    .held = premida a barra de espaços
    .short = Espaço
key-ArrowDown = seta para baixo
    .object = a seta para baixo
    .with = a seta para baixo
    .at = na seta para baixo
    .held = premida a seta para baixo
    .short = ↓
key-ArrowLeft = seta para a esquerda
    .object = a seta para a esquerda
    .with = a seta para a esquerda
    .at = na seta para a esquerda
    .held = premida a seta para a esquerda
    .short = ←
key-ArrowRight = seta para a direita
    .object = a seta para a direita
    .with = a seta para a direita
    .at = na seta para a direita
    .held = premida a seta para a direita
    .short = →
key-ArrowUp = seta para cima
    .object = a seta para cima
    .with = a seta para cima
    .at = na seta para cima
    .held = premida a seta para cima
    .short = ↑
key-BrowserSearch = Navegador: procurar
key-LaunchApp1 = Aplicação 1
key-LaunchApp2 = Aplicação 2
key-LaunchControlPanel = Painel de controlo
key-LaunchScreenSaver = Proteção de ecrã
key-MediaSelect = Selecionar multimédia
key-MediaStop = Parar multimédia
key-MediaTrackNext = Faixa seguinte
key-MediaPause = Pausar multimédia
key-MediaRewind = Rebobinar
key-PrivacyScreenToggle = Ecrã de privacidade
key-KeyboardLayoutSelect = Esquema do teclado
key-Cut = Cortar
key-Undo = Anular
key-DisplayToggleIntExt = Mudar de ecrã
key-MailForward = Reencaminhar e-mail
key-MailReply = Responder a e-mail
key-SelectTask = Mudar de tarefa

# how a key stands in a phrase: its legend or name alone, or with the forms that the language wants
key = { $key }
    .with = a tecla { $key }
    .at = na tecla { $key }
    .held = premida a tecla { $key }
key-row = { $keys }
    .with = as teclas { $keys }
    .at = nas teclas { $keys }
    .held = premidas as teclas { $keys }

# mouse
mouse-left = botão esquerdo do rato
    .object = o botão esquerdo do rato
    .at = com o botão esquerdo do rato
    .held = premido o botão esquerdo do rato
    .short = Rato esq.
mouse-right = botão direito do rato
    .object = o botão direito do rato
    .at = com o botão direito do rato
    .held = premido o botão direito do rato
    .short = Rato dir.
mouse-middle = botão do meio do rato
    .object = o botão do meio do rato
    .at = com o botão do meio do rato
    .held = premido o botão do meio do rato
    .short = Rato meio
mouse-back = botão de recuar do rato
    .object = o botão de recuar do rato
    .at = com o botão de recuar do rato
    .held = premido o botão de recuar do rato
    .short = Rato recuar
mouse-forward = botão de avançar do rato
    .object = o botão de avançar do rato
    .at = com o botão de avançar do rato
    .held = premido o botão de avançar do rato
    .short = Rato avançar
mouse-button = botão { $number } do rato
    .object = o botão { $number } do rato
    .at = com o botão { $number } do rato
    .held = premido o botão { $number } do rato
    .short = Rato { $number }
mouse-move = rato
    .object = o rato
    .at = no rato
    .short = Rato
wheel = roda do rato
    .object = a roda do rato
    .at = na roda do rato
    .short = Roda

# a pad's button by what is printed on it
pad-mark = { $mark }
    .with = o botão { $mark }
    .at = no botão { $mark }
    .held = premido o botão { $mark }

# pads, by place
pad-south = botão de baixo dos quatro
    .object = o botão de baixo dos quatro
    .at = no botão de baixo dos quatro
    .held = premido o botão de baixo dos quatro
    .short = de baixo dos 4
pad-east = botão da direita dos quatro
    .object = o botão da direita dos quatro
    .at = no botão da direita dos quatro
    .held = premido o botão da direita dos quatro
    .short = da direita dos 4
pad-west = botão da esquerda dos quatro
    .object = o botão da esquerda dos quatro
    .at = no botão da esquerda dos quatro
    .held = premido o botão da esquerda dos quatro
    .short = da esquerda dos 4
pad-north = botão de cima dos quatro
    .object = o botão de cima dos quatro
    .at = no botão de cima dos quatro
    .held = premido o botão de cima dos quatro
    .short = de cima dos 4
pad-shoulder-left = botão superior esquerdo
    .object = o botão superior esquerdo
    .at = no botão superior esquerdo
    .held = premido o botão superior esquerdo
    .short = superior esq.
pad-shoulder-right = botão superior direito
    .object = o botão superior direito
    .at = no botão superior direito
    .held = premido o botão superior direito
    .short = superior dir.
pad-trigger-left = gatilho esquerdo
    .object = o gatilho esquerdo
    .at = no gatilho esquerdo
    .held = premido o gatilho esquerdo
pad-trigger-right = gatilho direito
    .object = o gatilho direito
    .at = no gatilho direito
    .held = premido o gatilho direito
pad-center-left = botão central esquerdo
    .object = o botão central esquerdo
    .at = no botão central esquerdo
    .held = premido o botão central esquerdo
    .short = central esq.
pad-center-right = botão central direito
    .object = o botão central direito
    .at = no botão central direito
    .held = premido o botão central direito
    .short = central dir.
pad-center = botão central do comando
    .object = o botão central do comando
    .at = no botão central do comando
    .held = premido o botão central do comando
    .short = botão central
pad-stick-left-click = clique do manípulo esquerdo
    .object = o manípulo esquerdo
    .subject = o clique do manípulo esquerdo
    .with = o clique do manípulo esquerdo
    .at = no manípulo esquerdo
    .held = premido o manípulo esquerdo
    .short = clique man. esq.
pad-stick-right-click = clique do manípulo direito
    .object = o manípulo direito
    .subject = o clique do manípulo direito
    .with = o clique do manípulo direito
    .at = no manípulo direito
    .held = premido o manípulo direito
    .short = clique man. dir.
pad-up = botão direcional para cima
    .object = o botão direcional para cima
    .with = o botão direcional (para cima)
    .at = no botão direcional para cima
    .held = premido o botão direcional para cima
    .short = direcional ↑
pad-down = botão direcional para baixo
    .object = o botão direcional para baixo
    .with = o botão direcional (para baixo)
    .at = no botão direcional para baixo
    .held = premido o botão direcional para baixo
    .short = direcional ↓
pad-left = botão direcional para a esquerda
    .object = o botão direcional para a esquerda
    .with = o botão direcional (para a esquerda)
    .at = no botão direcional para a esquerda
    .held = premido o botão direcional para a esquerda
    .short = direcional ←
pad-right = botão direcional para a direita
    .object = o botão direcional para a direita
    .with = o botão direcional (para a direita)
    .at = no botão direcional para a direita
    .held = premido o botão direcional para a direita
    .short = direcional →
pad-paddle = botão traseiro { $number }
    .object = o botão traseiro { $number }
    .at = no botão traseiro { $number }
    .held = premido o botão traseiro { $number }
    .short = traseiro { $number }
pad-stick-left = manípulo esquerdo
    .object = o manípulo esquerdo
    .at = no manípulo esquerdo
    .short = manípulo esq.
pad-stick-right = manípulo direito
    .object = o manípulo direito
    .at = no manípulo direito
    .short = manípulo dir.
pad-gyro = movimento do comando
    .object = o movimento do comando
    .at = no movimento do comando
    .short = movimento
pad-cross = botões direcionais
    .object = os botões direcionais
    .at = nos botões direcionais
    .held = premidos os botões direcionais
key-arrows = teclas de seta
    .object = as teclas de seta
    .at = nas teclas de seta
    .held = premidas as teclas de seta

# other controllers, by what they report
hid-button = botão { $number }
    .object = o botão { $number }
    .at = no botão { $number }
    .held = premido o botão { $number }
axis-slider = cursor deslizante
    .object = o cursor deslizante
    .at = no cursor deslizante
axis-brake = pedal do travão
    .object = o pedal do travão
    .at = no pedal do travão
    .held = premido o pedal do travão
axis-clutch = pedal da embraiagem
    .object = o pedal da embraiagem
    .at = no pedal da embraiagem
    .held = premido o pedal da embraiagem
touch = { $name }
    .object = { $name }
    .at = em { $name }
    .held = o dedo em { $name }

# phrases; the variable picks the form of what the player works
do-press = Prime { $input }
do-hold = Mantém { $held }
do-tap = Dá um toque { $at }
do-double-tap = Dá dois toques { $at }
do-release = Solta { $input }
do-click = Clica { $at }
do-double-click = Clica duas vezes { $at }
do-turn = Gira { $input }
do-pull = Puxa { $input }
do-push = Move { $input }
do-move = Move { $input }
do-touch = Toca { $at }
do-press-together = Prime ao mesmo tempo { $input }
while-held = Mantém { $held } e { $do }

# menus
preset = Modelo
preset-none = nenhum
device-mouse = rato
device-gamepad = comando
device-unplugged = Sem ligação: { $device }. Volta a ligar para continuar.
device-back = Ligado de novo: { $device }.
column-keyboard = Teclado e rato
column-gamepad = Comando

# ready-made menus
menu-undo = Anular
menu-reset = Repor
menu-search = Procurar
menu-find = Procurar premindo…
menu-on = Tudo o que usa { $with }
menu-press = Prime…
menu-listen = Prime a nova tecla ou botão para “{ $title }”
menu-find-hint = Prime uma tecla ou botão para ver o que faz
menu-cancel = Prime { $input } para cancelar ({ $seconds } s)
menu-leave = Aplicar as alterações antes de sair?
menu-saved = Aplicado e guardado.

# the controls screen
screen-title = Controlos
page-pad = Comando
hint-reset = repor
hint-next-page = pág. seguinte
menu-presets = Modelos…
section-rest = Tudo o resto
section-easing = Manter premido e tocar
listen-hold = Mantém { $held } para usar aqui.
reset-more = Repor…
reset-title = O que queres repor?
preset-title = Escolhe um modelo
preset-game = Predefinição
mine-title = Manter as tuas alterações?
about-title = Aplica-se a
keep-title = Manter estes controlos?
keep-work = { $do } (“{ $title }”) para os manter.
keep-seconds = Caso contrário, os controlos antigos voltam em { $seconds } s.
keep-not = Os controlos antigos voltaram. As tuas alterações continuam aqui, mas não foram aplicadas.
family-gone = Este jogo não tem símbolos de botões com o nome “{ $name }”.
layout-title = Qual é o teu teclado?
profile-text = Copia este texto para partilhar o perfil
profile-paste = Cola aqui o texto de um perfil
deed-rename = Mudar o nome
deed-delete = Eliminar
deed-undelete = Recuperar
section-deleted = Eliminados
delete-title = Eliminar “{ $title }”?
delete-text = Podes recuperá-lo aqui mais tarde.
profile-first-apply = Primeiro, aplica ou anula as tuas alterações.
profile-none = Os controlos deste jogador não são guardados.
try-stop = Terminar teste
try-what = Prime qualquer coisa para ver o que faz. Nada acontece no jogo.

# what a cell is besides, for those who hear it
cell-fixed = não se pode alterar
cell-listening = à espera de tecla ou botão

# refusals; the variables of inputs pick their form here as well
refused-no-such-preset = Este jogo não tem o modelo “{ $preset }”.
refused-fixed = Não podes alterar “{ $title }” neste jogo.
refused-reserved = O jogo reserva { $with } para si. Escolhe outra opção.
refused-essential = “{ $title }” não pode ficar vazio ({ $column }). Define primeiro outra tecla ou botão.
refused-not-eased = Não podes alterar o modo de premir “{ $title }” neste jogo.
refused-not-understood = Esta versão do jogo não conhece esta definição.
refused-other-column = Não podes usar { $with } em “{ $column }”.
refused-mixed-columns = Não podes misturar dispositivos numa combinação ({ $name }).
refused-two-axes = Escolhe só uma direção para { $with }.
refused-turned = Não podes usar { $with } numa só direção. Escolhe um botão, gatilho ou manípulo.
refused-whole-axis = Escolhe só uma direção para { $with }.
refused-notches = Não podes manter { $held }. Escolhe uma tecla, botão ou gatilho.
refused-one-input = Só podes usar { $with } numa direção. Escolhe a linha dessa direção.
refused-out-of-range = { $setting }: escolhe de { $least } a { $most }.
refused-full = “{ $title }” não tem mais espaço ({ $column }: no máximo { $count }). Limpa primeiro um campo.
cannot-fixed = Isto não se pode alterar.
cannot-no-input = Define cada direção na respetiva linha.

# conflicts: what the first is on, in any form, and the name of what the other is on
conflict-letter = “{ $first }” ({ $name }) e “{ $second }” ({ $other }) usam a mesma tecla no teu teclado.
conflict-manner = “{ $first }” e “{ $second }” usam { $with } e atrapalham-se.

# settings and what they are set to
setting-layout = Esquema do teclado
setting-unread = Uma definição de outra versão
knob-threshold = Conta como premido em
ease-toggle = Premir uma vez liga, outra desliga
ease-latch = Tocar em vez de manter em combinações
ease-press = Premir em vez de manter premido
ease-hold-after = Tempo para manter premido
ease-together-within = Tempo para premir ao mesmo tempo
value-game = predefinição

# reports of loading, keeping and bringing together
set-aside-removed = “{ $title }” já não está no jogo. As tuas definições foram guardadas.
set-aside-unknown = Esta versão do jogo não conhece “{ $title }”. As tuas definições foram guardadas.
gave-way = “{ $title }” não recebe { $with }, que já usas em “{ $by }”.
note-no-letter = “{ $title }”: o teu teclado não tem tecla para { $letter }.
note-one-key = “{ $title }”: no teu teclado, { $name } é uma só tecla.
note-stands-in = “{ $title }”: o teu teclado não tem tecla para essa letra, por isso é usada outra.
load-damaged = Os teus controlos guardados estão danificados e não podem ser usados. O ficheiro foi mantido.
load-newer = Os teus controlos guardados são de uma versão mais recente do jogo. Atualiza o jogo para os usares.
load-unreachable = Não é possível ler agora os teus controlos guardados.
saved-with-other-changes = Os teus controlos também foram alterados noutro lado. Todas as alterações foram mantidas.
locker-no-such-profile = Este perfil já não existe.
locker-name-taken = Já tens um perfil com esse nome. Escolhe outro nome.
locker-full = Não há espaço para outro perfil (no máximo { $count }). Elimina um primeiro.
locker-too-many-damaged = Há demasiadas cópias danificadas deste perfil. Elimina primeiro algumas.
locker-newer = Os teus perfis são de uma versão mais recente do jogo. Atualiza o jogo.
locker-in-use = Outro programa está a usar os teus perfis. Tenta de novo.
locker-too-large = O perfil é demasiado grande para ser guardado.
locker-disk = Não foi possível guardar o perfil. Vê se há espaço livre e se o jogo pode guardar ficheiros.
import-newer = Este perfil é de uma versão mais recente do jogo. Atualiza o jogo para o usares.

# signs, as they are spoken
sign-hash = cardinal
sign-bracket-left = parêntese reto esquerdo
sign-bracket-right = parêntese reto direito
sign-brace-left = chaveta esquerda
sign-brace-right = chaveta direita
sign-colon = dois pontos

# controllers without a known mapping
controller-untaught = Novo dispositivo encontrado. Se for um comando, configura-o em “{ $page }” nos controlos.
controllers-text = Configura um dispositivo uma vez e o jogo passa a usá-lo como comando.
controller-pad = configurado como comando
controller-no-pad = não é um comando
controller-gone = sem ligação
teach-paste = Cola aqui o texto de um dispositivo
teach-text = Copia este texto para partilhar o dispositivo
teach-offer = Novo dispositivo. Configurar como comando?
teach-no-pad = Não é um comando
teach-how = Prime, puxa ou empurra e depois solta.
teach-progress = { $at } de { $count }. Salta em { $seconds } s.
teach-skip = Saltar
teach-keep-seconds = Caso contrário, será descartada em { $seconds } s.
teach-kept = Mantido. Agora o jogo usa este dispositivo como comando.
mappings-damaged = A configuração dos teus dispositivos está danificada e não pode ser usada. O ficheiro foi mantido.
mappings-newer = A configuração dos teus dispositivos é de uma versão mais recente do jogo. Atualiza o jogo para a usares.
mappings-unreachable = Não é possível ler agora a configuração dos teus dispositivos.

# on-screen buttons and sticks
touch-text = Arrasta para mover. Arrasta um canto para mudar o tamanho.

# several players
section-devices = Quem usa que dispositivo
devices-text = Prime algo num dispositivo para acender a linha dele.
device-last = Assim ficavas sem dispositivo.

# what a system does besides
system-takes = O teu sistema pode reagir primeiro a isto: { $name }

# outcomes
outcome-waiting = à espera do que vem a seguir
outcome-typing = não enquanto escreves: { $place }
outcome-not-held = falta manter: { $part }
outcome-part-spent = solta primeiro: { $part }
outcome-wrong-order = prime isto primeiro: { $part }
outcome-strict = não enquanto manténs: { $part }
outcome-not-together = não premido ao mesmo tempo
outcome-not-far-enough = não premido o suficiente
outcome-too-short = mantido pouco tempo
outcome-too-long = mantido demasiado tempo
outcome-second-too-late = o segundo toque veio tarde de mais
outcome-spent = solta primeiro
outcome-broken-chord = interrompido: entrou outra combinação
outcome-broken-focus = interrompido: saíste da janela do jogo
outcome-broken-unplugged = interrompido: o dispositivo ficou sem ligação
outcome-broken-rig = interrompido: os controlos mudaram
outcome-broken-situation = interrompido: já não funciona aqui
outcome-broken-spent = interrompido: o jogo já o usou
outcome-broken-let-go = interrompido: soltaste
# further
do-move-pad = Move { $input }
axis-accelerator = pedal do acelerador
    .object = o pedal do acelerador
    .at = no pedal do acelerador
    .held = premido o pedal do acelerador
one-hand-left-out = Não se pode jogar com uma só mão: { $titles }

# The place for details, and how a binding is worked
details-default = Predefinição do jogo
details-preset = Do modelo “{ $preset }”
details-yours = Definido por ti
manner-hold = manter
profile-line = Alterações: { $titles }
profile-same = Igual à predefinição
curve-hand = O teu gesto
manner-press = premir
rehearse = Testar outro esquema…
rehearse-title = Que esquema queres testar?
rehearse-on = A testar: { $layout }. As tuas teclas não mudam.
rehearse-key = { $there } é { $here } no teu teclado
rehearse-stop = Voltar ao meu esquema
