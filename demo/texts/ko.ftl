# The texts of Slack Water in Korean: its titles, and its prompts. A brace is written {"{"} in Fluent.

game = 게조
situation-deck = 갑판에서
situation-helm = 조타석에서
situation-crane = 크레인에서
situation-chart = 해도대에서
situation-hail = 항구 호출
situation-pause = 일시 정지
group-moving = 이동
group-always = 항상
action-walk = 걷기
action-walk-about = 선수에서 선미까지 갑판을 걷습니다.
action-walk-up = 뱃머리로 걷기
action-walk-down = 선미로 걷기
action-walk-left = 좌현으로 걷기
action-walk-right = 우현으로 걷기
action-hurry = 서두르기
action-hurry-about = 누르고 있는 동안 더 빨리 걷습니다.
action-cast-off = 출항
action-cast-off-about = 마지막 밧줄을 풀어 바지선을 출발시킵니다.
action-coil-rope = 밧줄 감기
action-coil-rope-about = 물속에 줄이 남지 않을 때까지 늘어진 줄을 감습니다.
action-lantern = 랜턴
action-lantern-about = 켜면 안개 속에서도 다른 배가 알아보고 해도도 보입니다.
action-map-table = 해도대
action-map-table-about = 하구의 해도를 펼칩니다.
action-steer = 조타
action-steer-left = 좌현으로 돌리기
action-steer-right = 우현으로 돌리기
action-throttle = 속도
action-throttle-about = 프로펠러가 도는 속도입니다.
action-horn = 경적
action-horn-about = 길을 막은 이들에게 경고합니다.
action-swing = 지브 돌리기
action-swing-left = 지브 왼쪽
action-swing-right = 지브 오른쪽
action-hoist = 올리고 내리기
action-hoist-up = 올리기
action-hoist-down = 내리기
action-fine = 정밀 조작
action-fine-about = 잠수부 가까이에서 작업하도록 크레인을 늦춥니다.
action-stow-1 = 뱃머리에 싣기
action-stow-2 = 가운데에 싣기
action-stow-3 = 선미에 싣기
action-pan = 해도 움직이기
action-pan-up = 해도 위로
action-pan-down = 해도 아래로
action-pan-left = 해도 왼쪽으로
action-pan-right = 해도 오른쪽으로
action-zoom = 확대와 축소
action-zoom-up = 확대
action-zoom-down = 축소
action-send = 보내기
action-resume = 계속하기
action-photo = 사진 찍기
# gone from the game; told of when an old profile has it
action-bilge-pump = 빌지 펌프
preset-left-handed = 왼손잡이
preset-skipper = 선장, 키보드 왼쪽 절반
preset-deckhand = 갑판원, 키보드 오른쪽 절반
touch-stick = 걷기 스틱
    .object = 걷기 스틱을
touch-rope = 밧줄
    .object = 밧줄을
touch-coil = 감은 밧줄
    .object = 감은 밧줄을
touch-port = 좌현 쪽
    .object = 좌현 쪽을
touch-starboard = 우현 쪽
    .object = 우현 쪽을
touch-throttle = 스로틀 레버
    .object = 스로틀 레버를
touch-horn = 경적
    .object = 경적을

leave = 출항하려면 {"{do:cast-off}"}
coil = 밧줄을 감으려면 {"{do:coil-rope}"}
steer = 조타: {"{steer}"}, 속도: {"{throttle}"}
chart = 해도: {"{map-table}"}, 확대와 축소: {"{zoom.up}"}, {"{zoom.down}"}
stow =
    { $berth ->
        [bow] 뱃머리에 실으려면 {"{do:stow-1}"}
        [stern] 선미에 실으려면 {"{do:stow-3}"}
       *[other] 가운데에 실으려면 {"{do:stow-2}"}
    }
at-deck = 출항하려면 {"{do:cast-off}"}. 걷기: {"{walk}"}. 밧줄을 감으려면 {"{do:coil-rope}"}
at-helm = 조타: {"{steer}"}, 속도: {"{throttle}"}. 경적을 울리려면 {"{do:horn}"}
at-crane = 돌리기: {"{swing}"}, 올리기: {"{hoist}"}, 정밀 조작: {"{fine}"}
at-chart = 해도 움직이기: {"{pan}"}, 확대와 축소: {"{zoom.up}"}, {"{zoom.down}"}
at-pause = 계속하려면 {"{do:resume}"}
