# The texts of Slack Water in Traditional Chinese: its titles, and its prompts. A brace is written {"{"} in Fluent.

game = 平潮
situation-deck = 甲板上
situation-helm = 掌舵
situation-crane = 起重機
situation-chart = 海圖桌
situation-hail = 呼叫港口
situation-pause = 已暫停
group-moving = 移動
group-always = 隨時
action-walk = 行走
action-walk-about = 在甲板上從船頭走到船尾。
action-walk-up = 走向船頭
action-walk-down = 走向船尾
action-walk-left = 走向左舷
action-walk-right = 走向右舷
action-hurry = 快走
action-hurry-about = 按住時走得更快。
action-cast-off = 解纜
action-cast-off-about = 解開最後一條纜繩，駁船啟航。
action-coil-rope = 盤繩
action-coil-rope-about = 收緊鬆弛的繩索，直到水中沒有餘繩。
action-lantern = 提燈
action-lantern-about = 點亮後，霧中別人看得見你，你也看得清海圖。
action-map-table = 海圖桌
action-map-table-about = 打開河口的海圖。
action-steer = 操舵
action-steer-left = 左舵
action-steer-right = 右舵
action-throttle = 油門
action-throttle-about = 螺旋槳轉動的快慢。
action-horn = 汽笛
action-horn-about = 警告擋在前方的人。
action-swing = 旋轉吊臂
action-swing-left = 向左舷旋轉
action-swing-right = 向右舷旋轉
action-hoist = 升降
action-hoist-up = 起吊
action-hoist-down = 放下
action-fine = 精細控制
action-fine-about = 放慢起重機，方便在潛水員附近作業。
action-stow-1 = 裝到船頭
action-stow-2 = 裝到船中
action-stow-3 = 裝到船尾
action-pan = 移動海圖
action-pan-up = 海圖上移
action-pan-down = 海圖下移
action-pan-left = 海圖左移
action-pan-right = 海圖右移
action-zoom = 縮放
action-zoom-up = 放大
action-zoom-down = 縮小
action-send = 傳送
action-resume = 繼續
action-photo = 拍照
# gone from the game; told of when an old profile has it
action-bilge-pump = 艙底泵
preset-left-handed = 左手
preset-skipper = 船長，鍵盤左半邊
preset-deckhand = 水手，鍵盤右半邊
touch-stick = 行走搖桿
touch-rope = 纜繩
touch-coil = 繩卷
touch-port = 左舷側
touch-starboard = 右舷側
touch-throttle = 油門桿
touch-horn = 汽笛

leave = {"{do:cast-off}"}離開碼頭
coil = {"{do:coil-rope}"}盤繩
steer = {"{steer}"}操舵，{"{throttle}"}加速
chart = {"{map-table}"}打開海圖，{"{zoom.up}"}和{"{zoom.down}"}縮放
stow =
    { $berth ->
        [bow] {"{do:stow-1}"}裝到船頭
        [stern] {"{do:stow-3}"}裝到船尾
       *[other] {"{do:stow-2}"}裝到船中
    }
at-deck = {"{do:cast-off}"}離開，{"{walk}"}行走，{"{do:coil-rope}"}盤繩
at-helm = {"{steer}"}操舵，{"{throttle}"}加速，{"{do:horn}"}鳴笛
at-crane = {"{swing}"}旋轉，{"{hoist}"}升降，{"{fine}"}精細控制
at-chart = {"{pan}"}移動海圖，{"{zoom.up}"}和{"{zoom.down}"}縮放
at-pause = {"{do:resume}"}繼續
