# The texts of Slack Water in Russian: its titles, and its prompts. A brace is written {"{"} in Fluent.

game = Стоячая вода
situation-deck = На палубе
situation-helm = У штурвала
situation-crane = В кабине крана
situation-chart = У стола с картами
situation-hail = Вызов порта
situation-pause = Пауза
group-moving = Движение
group-always = Всегда
action-walk = Ходьба
action-walk-about = По палубе, от носа до кормы.
action-walk-up = Идти к носу
action-walk-down = Идти к корме
action-walk-left = Идти к левому борту
action-walk-right = Идти к правому борту
action-hurry = Спешить
action-hurry-about = Шаг быстрее, пока кнопка нажата.
action-cast-off = Отдать швартовы
action-cast-off-about = Отдаёт последний конец: баржа отходит.
action-coil-rope = Смотать канат
action-coil-rope-about = Выбирает слабину, пока в воде не останется троса.
action-lantern = Фонарь
action-lantern-about = С ним вас видят в тумане, а вы видите карту.
action-map-table = Стол с картами
action-map-table-about = Открывает карту устья реки.
action-steer = Управление рулём
action-steer-left = Лево руля
action-steer-right = Право руля
action-throttle = Ход
action-throttle-about = Скорость вращения винта.
action-horn = Гудок
action-horn-about = Предупреждает всех, кто на пути.
action-swing = Поворот стрелы
action-swing-left = Стрела влево
action-swing-right = Стрела вправо
action-hoist = Подъём и спуск
action-hoist-up = Поднять
action-hoist-down = Опустить
action-fine = Точное управление
action-fine-about = Замедляет кран для работы рядом с водолазом.
action-stow-1 = Уложить на носу
action-stow-2 = Уложить посередине
action-stow-3 = Уложить на корме
action-pan = Двигать карту
action-pan-up = Карта вверх
action-pan-down = Карта вниз
action-pan-left = Карта влево
action-pan-right = Карта вправо
action-zoom = Масштаб
action-zoom-up = Приблизить
action-zoom-down = Отдалить
action-send = Отправить
action-resume = Продолжить
action-photo = Снимок
# gone from the game; told of when an old profile has it
action-bilge-pump = Трюмная помпа
preset-left-handed = Для левши
preset-skipper = Шкипер, левая половина клавиатуры
preset-deckhand = Матрос, правая половина клавиатуры
touch-stick = стик ходьбы
    .object = стик ходьбы
touch-rope = канат
    .object = канат
touch-coil = бухта
    .object = бухту
touch-port = левый борт
    .object = левый борт
touch-starboard = правый борт
    .object = правый борт
touch-throttle = рычаг газа
    .object = рычаг газа
touch-horn = гудок
    .object = гудок

leave = {"{do:cast-off}"}, чтобы отчалить
coil = {"{do:coil-rope}"}, чтобы смотать канат
steer = {"{steer}"} — руль, {"{throttle}"} — прибавить ход
chart = {"{map-table}"} открывает карту, {"{zoom.up}"} и {"{zoom.down}"} меняют масштаб
stow =
    { $berth ->
        [bow] {"{do:stow-1}"}, чтобы уложить на носу
        [stern] {"{do:stow-3}"}, чтобы уложить на корме
       *[other] {"{do:stow-2}"}, чтобы уложить посередине
    }
at-deck = {"{do:cast-off}"}, чтобы отчалить; {"{walk}"} — ходьба; {"{do:coil-rope}"}, чтобы смотать канат
at-helm = {"{steer}"} — руль, {"{throttle}"} — прибавить ход; {"{do:horn}"}, чтобы дать гудок
at-crane = {"{swing}"} — поворот, {"{hoist}"} — подъём, {"{fine}"} — точность
at-chart = {"{pan}"} — двигать карту, {"{zoom.up}"} и {"{zoom.down}"} — масштаб
at-pause = {"{do:resume}"}, чтобы продолжить
