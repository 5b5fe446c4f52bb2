# The texts of Slack Water in Ukrainian: its titles, and its prompts. A brace is written {"{"} in Fluent.

game = Стояча вода
situation-deck = На палубі
situation-helm = Біля стерна
situation-crane = У кабіні крана
situation-chart = Біля столу з картами
situation-hail = Виклик порту
situation-pause = Пауза
group-moving = Рух
group-always = Завжди
action-walk = Хода
action-walk-about = Палубою, від носа до корми.
action-walk-up = Іти до носа
action-walk-down = Іти до корми
action-walk-left = Іти до лівого борту
action-walk-right = Іти до правого борту
action-hurry = Поспішати
action-hurry-about = Пришвидшує крок, доки натиснуто.
action-cast-off = Віддати швартови
action-cast-off-about = Віддає останній кінець: баржа рушає.
action-coil-rope = Змотати канат
action-coil-rope-about = Вибирає слабину, доки у воді не лишиться троса.
action-lantern = Ліхтар
action-lantern-about = З ним вас видно в тумані, а вам видно карту.
action-map-table = Стіл із картами
action-map-table-about = Відкриває карту гирла річки.
action-steer = Кермування
action-steer-left = Стерно вліво
action-steer-right = Стерно вправо
action-throttle = Хід
action-throttle-about = Швидкість обертання гвинта.
action-horn = Гудок
action-horn-about = Попереджає всіх, хто на шляху.
action-swing = Поворот стріли
action-swing-left = Стріла вліво
action-swing-right = Стріла вправо
action-hoist = Підйом і спуск
action-hoist-up = Підняти
action-hoist-down = Опустити
action-fine = Точне керування
action-fine-about = Сповільнює кран для роботи поруч із водолазом.
action-stow-1 = Укласти на носі
action-stow-2 = Укласти посередині
action-stow-3 = Укласти на кормі
action-pan = Рухати карту
action-pan-up = Карта вгору
action-pan-down = Карта вниз
action-pan-left = Карта вліво
action-pan-right = Карта вправо
action-zoom = Масштаб
action-zoom-up = Наблизити
action-zoom-down = Віддалити
action-send = Надіслати
action-resume = Продовжити
action-photo = Знімок
# gone from the game; told of when an old profile has it
action-bilge-pump = Трюмна помпа
preset-left-handed = Для шульги
preset-skipper = Шкіпер, ліва половина клавіатури
preset-deckhand = Матрос, права половина клавіатури
touch-stick = стик ходьби
    .object = стик ходьби
touch-rope = канат
    .object = канат
touch-coil = бухта
    .object = бухту
touch-port = лівий борт
    .object = лівий борт
touch-starboard = правий борт
    .object = правий борт
touch-throttle = важіль газу
    .object = важіль газу
touch-horn = гудок
    .object = гудок

leave = {"{do:cast-off}"}, щоб відчалити
coil = {"{do:coil-rope}"}, щоб змотати канат
steer = {"{steer}"} — стерно, {"{throttle}"} — додати ходу
chart = {"{map-table}"} відкриває карту, {"{zoom.up}"} і {"{zoom.down}"} змінюють масштаб
stow =
    { $berth ->
        [bow] {"{do:stow-1}"}, щоб укласти на носі
        [stern] {"{do:stow-3}"}, щоб укласти на кормі
       *[other] {"{do:stow-2}"}, щоб укласти посередині
    }
at-deck = {"{do:cast-off}"}, щоб відчалити; {"{walk}"} — хода; {"{do:coil-rope}"}, щоб змотати канат
at-helm = {"{steer}"} — стерно, {"{throttle}"} — додати ходу; {"{do:horn}"}, щоб дати гудок
at-crane = {"{swing}"} — поворот, {"{hoist}"} — підйом, {"{fine}"} — точність
at-chart = {"{pan}"} — рухати карту, {"{zoom.up}"} і {"{zoom.down}"} — масштаб
at-pause = {"{do:resume}"}, щоб продовжити
