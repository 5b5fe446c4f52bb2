# The texts of Slack Water in Simplified Chinese: its titles, and its prompts. A brace is written {"{"} in Fluent.

game = 平潮
situation-deck = 甲板上
situation-helm = 掌舵
situation-crane = 起重机
situation-chart = 海图桌
situation-hail = 呼叫港口
situation-pause = 已暂停
group-moving = 移动
group-always = 始终
action-walk = 行走
action-walk-about = 在甲板上从船头走到船尾。
action-walk-up = 走向船头
action-walk-down = 走向船尾
action-walk-left = 走向左舷
action-walk-right = 走向右舷
action-hurry = 快走
action-hurry-about = 按住时走得更快。
action-cast-off = 解缆
action-cast-off-about = 解开最后一根缆绳，驳船启航。
action-coil-rope = 盘绳
action-coil-rope-about = 收紧松弛的绳索，直到水中没有余绳。
action-lantern = 提灯
action-lantern-about = 点亮后，雾中别人能看见你，你也能看清海图。
action-map-table = 海图桌
action-map-table-about = 打开河口的海图。
action-steer = 操舵
action-steer-left = 左舵
action-steer-right = 右舵
action-throttle = 油门
action-throttle-about = 螺旋桨转动的快慢。
action-horn = 汽笛
action-horn-about = 警告挡在前面的人。
action-swing = 旋转吊臂
action-swing-left = 向左舷旋转
action-swing-right = 向右舷旋转
action-hoist = 升降
action-hoist-up = 起吊
action-hoist-down = 放下
action-fine = 精细控制
action-fine-about = 放慢起重机，便于在潜水员附近作业。
action-stow-1 = 装到船头
action-stow-2 = 装到船中
action-stow-3 = 装到船尾
action-pan = 移动海图
action-pan-up = 海图上移
action-pan-down = 海图下移
action-pan-left = 海图左移
action-pan-right = 海图右移
action-zoom = 缩放
action-zoom-up = 放大
action-zoom-down = 缩小
action-send = 发送
action-resume = 继续
action-photo = 拍照
# gone from the game; told of when an old profile has it
action-bilge-pump = 舱底泵
preset-left-handed = 左手
preset-skipper = 船长，键盘左半边
preset-deckhand = 水手，键盘右半边
touch-stick = 行走摇杆
touch-rope = 缆绳
touch-coil = 绳卷
touch-port = 左舷侧
touch-starboard = 右舷侧
touch-throttle = 油门杆
touch-horn = 汽笛

leave = {"{do:cast-off}"}离开码头
coil = {"{do:coil-rope}"}盘绳
steer = {"{steer}"}操舵，{"{throttle}"}加速
chart = {"{map-table}"}打开海图，{"{zoom.up}"}和{"{zoom.down}"}缩放
stow =
    { $berth ->
        [bow] {"{do:stow-1}"}装到船头
        [stern] {"{do:stow-3}"}装到船尾
       *[other] {"{do:stow-2}"}装到船中
    }
at-deck = {"{do:cast-off}"}离开，{"{walk}"}行走，{"{do:coil-rope}"}盘绳
at-helm = {"{steer}"}操舵，{"{throttle}"}加速，{"{do:horn}"}鸣笛
at-crane = {"{swing}"}旋转，{"{hoist}"}升降，{"{fine}"}精细控制
at-chart = {"{pan}"}移动海图，{"{zoom.up}"}和{"{zoom.down}"}缩放
at-pause = {"{do:resume}"}继续
