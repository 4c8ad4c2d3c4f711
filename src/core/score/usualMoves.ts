// The usual vocabulary of home training beside the moves of moves.ts, one line each: what a plan needs to know of it
// and the names that people give it. Facts are ours, by doing the moves; they are starting points that creators change.
// name | posture | muscles | impact | effort | sides | gear | seconds per rep | easier | tags | other names

export const USUAL_LINES = `
Air squat | standing | thighs hips | still | 3 | none | | 3 | To a chair | strength | bodyweight squat, body weight squat, prisoner squat
Sumo squat | standing | thighs hips | still | 3 | none | | 3 | Smaller bend | strength | plie squat, wide squat, wide stance squat
Narrow squat | standing | thighs hips | still | 3 | none | | 3 | To a chair | strength | close squat, feet together squat
Pulse squat | standing | thighs hips | still | 4 | none | | 1 | Higher pulses | strength | squat pulse, squat pulses, squat hold pulses
Squat hold | standing | thighs hips | still | 3 | none | | 4 | Higher | strength hold | static squat, isometric squat, low squat hold
Front squat | standing | thighs hips arms | still | 4 | none | weight | 3.5 | Lighter weight | strength | dumbbell squat, weighted squat, loaded squat
Squat to press | standing | thighs hips shoulders arms | still | 4 | none | weight | 4 | No weight | strength | thruster, squat press, squat and press, squat to overhead press
Squat and reach | standing | thighs hips shoulders | still | 3 | none | | 3 | Smaller bend | warm-up | squat with reach, squat to reach
Squat to calf raise | standing | thighs hips calves | still | 3 | none | | 3.5 | Hold a wall | strength | squat with calf raise, squat calf raise
Squat with side kick | standing | thighs hips | low | 4 | byRep | | 3 | Lower kick | cardio | squat side kick, squat to side kick
Squat jack | standing | thighs hips calves | high | 5 | none | | 1.5 | Step out low | cardio | squat jacks, jump squat jack
Pop squat | standing | thighs hips calves | high | 5 | none | | 1.5 | Step out and in | cardio | in and out squat, in out squat jump
Tuck jump | standing | thighs hips calves trunk | high | 5 | none | | 2 | Fast march | cardio | knee tuck jump
Star jump | standing | shoulders thighs calves | high | 5 | none | | 2 | Step out with arms | cardio | star jumps, x jump
Broad jump | standing | thighs hips calves | high | 5 | none | | 3 | Long step | cardio | long jump, standing long jump
Squat thrust | handsFeet | trunk thighs shoulders | high | 5 | none | | 2.5 | Step back | cardio | up down, half burpee, burpee without press-up
Box jump | standing | thighs hips calves | high | 5 | none | box | 2.5 | Step up | cardio | step jump
Lateral step-up | standing | thighs hips | low | 3 | alternate | step | 3 | Lower step | strength | side step up
Step-up with knee drive | standing | thighs hips trunk | low | 4 | alternate | step | 3 | Lower step | strength | step up knee drive, knee drive step up
Toe taps | standing | calves thighs | low | 3 | byRep | step | 0.6 | Slower | cardio | step taps, box toe taps
Forward lunge | standing | thighs hips | still | 3 | byRep | | 3 | Shorter step | strength | front lunge, alternating forward lunge
Walking lunge | standing | thighs hips | still | 3 | byRep | | 3 | Shorter step | strength | travelling lunge, traveling lunge
Curtsy lunge | standing | thighs hips | still | 3 | byRep | | 3 | Smaller step | strength | curtsey lunge, crossback lunge
Lunge pulse | standing | thighs hips | still | 4 | alternate | | 1 | Higher pulses | strength | pulse lunge, static lunge pulse
Static lunge | standing | thighs hips | still | 3 | alternate | | 3 | Hold a wall | strength | stationary lunge, split lunge
Lunge with twist | standing | thighs hips trunk | still | 3 | byRep | | 3.5 | Shorter step | strength | lunge twist, twisting lunge
Lunge with knee drive | standing | thighs hips trunk | low | 4 | alternate | | 2.5 | Tap the toe | strength | lunge to knee drive, reverse lunge to knee drive, lunge knee drive
Lunge to curl | standing | thighs hips arms | still | 4 | byRep | weight | 4 | No weight | strength | lunge and curl, lunge with biceps curl
Lunge to press | standing | thighs hips shoulders arms | still | 4 | byRep | weight | 4 | No weight | strength | lunge and press, lunge with press
Rear-foot split squat | standing | thighs hips | still | 4 | alternate | chair | 3.5 | Both feet on the floor | strength | raised split squat, rear foot elevated split squat
One-leg squat | standing | thighs hips | still | 5 | alternate | | 4 | To a chair | strength | single leg squat, one legged squat
One-leg chair squat | standing | thighs hips | still | 4 | alternate | chair | 4 | Both feet | strength | single leg sit to stand, one leg sit to stand
Sit to stand | standing | thighs hips | still | 2 | none | chair | 3 | Push off with the hands | strength | chair squat, chair stand, sit-to-stand
Cossack squat | standing | thighs hips | still | 4 | byRep | | 4 | Smaller bend | strength | deep side squat
Side-to-side squat | standing | thighs hips | still | 3 | byRep | | 3 | Smaller step | strength | lateral squat, squat walk, side squat
Hip hinge | standing | hips back | still | 2 | none | | 3 | Smaller bow | warm-up | hinge
Romanian deadlift | standing | back hips thighs grip | still | 4 | none | weight | 4 | Lighter weight | strength | rdl, straight leg deadlift, stiff leg deadlift, dumbbell deadlift
Sumo deadlift | standing | hips thighs back grip | still | 4 | none | weight | 4 | Lighter weight | strength | wide deadlift
One-leg reach | standing | hips thighs back | still | 3 | alternate | | 4 | Toes stay down | strength balance | single leg reach, airplane
Deadlift to row | standing | back hips thighs arms grip | still | 4 | none | weight | 4.5 | Lighter weight | strength | deadlift and row, deadlift row
Clean | standing | hips thighs back shoulders grip | low | 5 | none | weight | 3 | Deadlift instead | strength | power clean, hang clean, dumbbell clean
Clean and press | standing | hips thighs back shoulders arms | low | 5 | none | weight | 4 | Lighter weight | strength | clean to press, clean & press
Snatch | standing | hips thighs back shoulders | low | 5 | alternate | weight | 3 | Swing instead | strength | dumbbell snatch, one arm snatch
One-arm swing | standing | hips thighs back grip | low | 5 | alternate | weight | 2 | Both hands | cardio | single arm swing
Halo | standing | shoulders trunk | still | 3 | byRep | weight | 3 | No weight | strength | head circles with weight
Push press | standing | shoulders arms thighs | still | 4 | none | weight | 3 | Lighter weight | strength | dumbbell push press
One-arm press | standing | shoulders arms trunk | still | 3 | alternate | weight | 3 | Lighter weight | strength | single arm press, single arm shoulder press
Front raise | standing | shoulders | still | 3 | none | weight | 3 | Bend the elbows | strength | front lift
Reverse fly | standing | back shoulders | still | 3 | none | weight | 3 | Lighter weight | strength | rear delt fly, bent over fly, rear fly, reverse flye
Upright row | standing | shoulders arms | still | 3 | none | weight | 3 | Lower pull | strength | high pull
Shrug | standing | shoulders grip | still | 2 | none | weight | 2 | Lighter weight | strength | shoulder shrug
Turning press | standing | shoulders arms | still | 3 | none | weight | 3.5 | Lighter weight | strength | rotating press
Hammer curl | standing | arms grip | still | 2 | none | weight | 3 | Lighter weight | strength | neutral curl
Curl to press | standing | arms shoulders | still | 3 | none | weight | 4 | Lighter weight | strength | curl and press, biceps curl to press, bicep curl to shoulder press
Concentration curl | seated | arms grip | still | 2 | alternate | weight | 3 | Lighter weight | strength | seated curl
Triceps kickback | standing | arms | still | 2 | none | weight | 3 | Lighter weight | strength | kickback, tricep kickback
Overhead triceps extension | standing | arms shoulders | still | 3 | none | weight | 3 | Lighter weight | strength | tricep extension, triceps extension, overhead tricep extension, skull crusher standing
Lying triceps extension | faceUp | arms | still | 3 | none | weight | 3 | Lighter weight | strength | skull crusher, lying tricep extension
Chest fly | faceUp | chest shoulders | still | 3 | none | weight | 3 | Lighter weight | strength | floor fly, dumbbell fly, chest flye
Pullover | faceUp | back chest shoulders | still | 3 | none | weight | 4 | Lighter weight | strength | dumbbell pullover
One-arm row | standing | back arms grip | still | 3 | alternate | weight | 3 | Lighter weight | strength | single arm row, dumbbell row, one arm dumbbell row
Renegade row | handsFeet | back arms trunk shoulders | still | 5 | byRep | weight | 3 | On the knees | strength | plank row, row in plank
Towel row | standing | back arms grip | still | 2 | none | towel | 3 | Shorter pull | strength | towel pull
Superman pull | faceDown | back shoulders | still | 3 | none | | 3 | Arms only | strength | lat pull on the floor, prone pull down, superman lat pull
Prone Y raise | faceDown | back shoulders | still | 2 | none | | 3 | Smaller lift | strength | y raise, prone y, ytw
Reverse snow angel | faceDown | back shoulders | still | 2 | none | | 4 | Arms low | strength | prone snow angel
Superman | faceDown | back hips | still | 2 | none | | 3 | Arms only | strength | superman hold, back lift, prone lift
Bird dog | handsFeet | trunk back hips | still | 2 | byRep | | 3 | Leg only | trunk | opposite arm and leg, pointer
Knee press-up | handsFeet | chest shoulders arms | still | 3 | none | | 3 | Against a wall | strength | kneeling press-up, knee push-up, modified press-up, press-up on the knees
Wide press-up | handsFeet | chest shoulders arms trunk | still | 4 | none | | 3 | On the knees | strength | wide push-up
Close press-up | handsFeet | arms chest shoulders trunk | still | 4 | none | | 3 | On the knees | strength | diamond press-up, triceps press-up, narrow press-up, tricep push-up
Raised press-up | handsFeet | chest shoulders arms trunk | still | 3 | none | chair | 3 | Against a wall | strength | incline press-up, hands elevated press-up, incline push-up
Feet-up press-up | handsFeet | chest shoulders arms trunk | still | 5 | none | chair | 3 | Feet down | strength | decline press-up, decline push-up
Wall press-up | standing | chest shoulders arms | still | 2 | none | wall | 3 | Stand closer | strength | wall push-up
Pike press-up | handsFeet | shoulders arms trunk | still | 4 | none | | 3 | Smaller bend | strength | pike push-up, shoulder press-up
Press-up hold | handsFeet | chest shoulders arms trunk | still | 4 | none | | 4 | On the knees | strength hold | low press-up hold
Press-up with rotation | handsFeet | chest shoulders arms trunk | still | 5 | byRep | | 4 | On the knees | strength | press-up to side plank, t press-up, t push-up, rotating press-up
Press-up with shoulder tap | handsFeet | chest shoulders arms trunk | still | 5 | none | | 4 | On the knees | strength | press-up shoulder tap
Walk-out press-up | handsFeet | shoulders chest trunk thighs | still | 4 | none | | 6 | On the knees | strength | walkout press-up, inchworm press-up, inchworm to press-up
Hand-release press-up | faceDown | chest shoulders arms trunk | still | 4 | none | | 4 | On the knees | strength | hand release push-up
Crawl | handsFeet | shoulders trunk thighs | low | 4 | byRep | | 1 | Knees down | cardio | bear crawl, animal crawl, forward crawl
Crab walk | seated | arms shoulders hips | low | 3 | byRep | | 1 | Shorter | cardio | crab crawl
Crab toe touch | seated | trunk arms hips | low | 4 | byRep | | 2 | Lower kick | cardio | crab kick
Bear plank shoulder tap | handsFeet | trunk shoulders thighs | still | 4 | byRep | | 1.5 | Knees down | trunk | bear tap
Plank jack | handsFeet | trunk shoulders hips | high | 4 | none | | 1 | Step out | cardio | plank jacks
Plank up-down | handsFeet | trunk shoulders arms | still | 4 | byRep | | 3 | On the knees | trunk | up down plank, plank up and down, commando plank, elbow to hand plank, walking plank
Plank with leg lift | faceDown | trunk hips shoulders | still | 4 | byRep | | 2.5 | On the knees | trunk | plank leg lift, plank leg raise
Plank hip dip | faceDown | trunk shoulders | still | 3 | byRep | | 2 | On the knees | trunk | plank dips, hip dips, plank twist, plank hip twist
Plank knee to elbow | handsFeet | trunk shoulders | low | 4 | byRep | | 2 | Slower | trunk | spider plank, plank knee tuck, knee to elbow plank
Plank reach | handsFeet | trunk shoulders | still | 4 | byRep | | 2 | On the knees | trunk | plank with reach, plank arm reach
Plank step | faceDown | trunk hips | still | 3 | byRep | | 2 | On the knees | trunk | plank side step, plank toe tap
High plank | handsFeet | trunk shoulders arms | still | 3 | none | | 4 | On the knees | trunk hold | straight arm plank, press-up position hold, tall plank
Forearm plank | faceDown | trunk shoulders | still | 3 | none | | 4 | On the knees | trunk hold | elbow plank, low plank
Reverse plank | faceUp | hips arms shoulders trunk | still | 3 | none | | 4 | Bend the knees | trunk hold | table top hold, reverse table top
Side plank dip | faceDown | trunk shoulders | still | 4 | alternate | | 2 | Lower knee down | trunk | side plank hip dip, side plank hip lift, side plank pulse
Side plank with rotation | faceDown | trunk shoulders | still | 4 | alternate | | 3 | Lower knee down | trunk | side plank twist, side plank thread the needle
Raised-leg side plank | faceDown | trunk hips | still | 5 | alternate | chair | 4 | Lower knee | trunk hold | side plank with a raised leg
Down dog to plank | handsFeet | shoulders trunk calves | still | 3 | none | | 4 | Bend the knees | mobility | downward dog to plank, plank to down dog, plank to downward dog
Sit-up | faceUp | trunk hips | still | 3 | none | | 3 | Hands behind the thighs | trunk | sit ups, full sit-up, situp
Bicycle crunch | faceUp | trunk | still | 3 | byRep | | 1.5 | Slower, feet higher | trunk | bicycle, bicycles, cycling crunch
Reverse crunch | faceUp | trunk hips | still | 3 | none | | 3 | Smaller lift | trunk | hip lift crunch
Oblique crunch | faceUp | trunk | still | 2 | alternate | | 2 | Smaller lift | trunk | side crunch, cross crunch
Toe reach | faceUp | trunk | still | 3 | none | | 2 | Bend the knees | trunk | toe touches, toe touch crunch, toe tap crunch, lying toe touch
Heel taps | faceUp | trunk | still | 2 | byRep | | 1.5 | Smaller reach | trunk | heel touches, heel touch, alternating heel touch, penguin
V sit | seated | trunk hips | still | 4 | none | | 3 | Bend the knees | trunk | v-up, v up, jackknife, v sit up
Boat hold | seated | trunk hips | still | 3 | none | | 4 | Feet down | trunk hold | v hold, v sit hold, boat pose
Hollow hold | faceUp | trunk | still | 4 | none | | 4 | Knees bent | trunk hold | hollow body hold, dish hold
Flutter kicks | faceUp | trunk hips | still | 3 | byRep | | 0.8 | Legs higher | trunk | flutter kick, scissors up and down
Scissor kicks | faceUp | trunk hips | still | 3 | byRep | | 1 | Legs higher | trunk | scissors, leg scissors, scissor legs
Leg raise | faceUp | trunk hips | still | 3 | none | | 3 | Bend the knees | trunk | leg raises, lying leg raise, straight leg raise
Knee tuck | seated | trunk hips | still | 3 | none | | 2 | Hands on the floor | trunk | seated knee tuck, in and outs, ins and outs, knee ins
Rowing twist | seated | trunk | still | 3 | byRep | | 1.5 | Heels down | trunk | russian twist, twist with weight
Standing crunch | standing | trunk hips | low | 2 | byRep | | 2 | Lower knee | trunk | standing knee to elbow, standing cross crunch, standing bicycle, knee to elbow
Standing side crunch | standing | trunk hips | low | 2 | byRep | | 2 | Lower knee | trunk | standing oblique crunch, side knee lift
Side bend | standing | trunk | still | 2 | alternate | weight | 3 | No weight | trunk | oblique bend
Wood chop | standing | trunk shoulders hips | still | 3 | alternate | weight | 3 | No weight | trunk | woodchop, chop, chopper
Standing twist | standing | trunk | still | 1 | byRep | | 1.5 | Slower | warm-up | torso twist, torso rotation, trunk rotation
Windmill | standing | trunk hips shoulders | still | 3 | byRep | | 3 | Reach to the shin | trunk | toe touch windmill, standing windmill
Glute bridge march | faceUp | hips thighs trunk | still | 3 | byRep | | 2 | Both feet | strength | bridge march, marching bridge, marching glute bridge
Glute bridge hold | faceUp | hips thighs | still | 3 | none | | 4 | Lower | strength hold | bridge hold, static bridge
Glute bridge pulse | faceUp | hips thighs | still | 3 | none | | 1 | Lower | strength | bridge pulse, bridge pulses, hip pulse
Frog bridge | faceUp | hips | still | 2 | none | | 2 | Smaller lift | strength | frog pump, frog pumps
Hip thrust | seated | hips thighs | still | 4 | none | chair | 3 | Glute bridge on the floor | strength | raised bridge, bench hip thrust
Hamstring walk-out | faceUp | thighs hips | still | 4 | byRep | | 4 | Shorter walk | strength | bridge walk out, bridge walkout
Hamstring slide | faceUp | thighs hips | still | 4 | none | towel | 4 | One at a time | strength | towel hamstring curl, sliding leg curl, hamstring curl
Donkey kick | handsFeet | hips | still | 2 | alternate | | 2 | Smaller lift | strength | quadruped kickback, glute kickback
Fire hydrant | handsFeet | hips | still | 2 | alternate | | 2 | Smaller lift | strength | quadruped side lift, hydrant
Clam | faceUp | hips | still | 2 | alternate | | 2 | Smaller lift | strength | clamshell, clam shell
Side leg lift | faceUp | hips | still | 2 | alternate | | 2 | Smaller lift | strength | side leg raise, lying side leg lift, side lying leg raise
Standing leg lift | standing | hips | still | 2 | alternate | wall | 2 | Hold a wall | strength | standing side leg raise, standing leg raise, leg abduction
Inner thigh lift | faceUp | hips thighs | still | 2 | alternate | | 2 | Smaller lift | strength | inner thigh raise
Standing kickback | standing | hips | still | 2 | alternate | wall | 2 | Hold a wall | strength | standing glute kickback
Wall sit march | standing | thighs hips | still | 4 | byRep | wall | 2 | Sit higher | strength | wall sit with march
One-leg calf raise | standing | calves | still | 3 | alternate | wall | 2 | Both feet | strength | single leg calf raise
Calf raise hold | standing | calves | still | 2 | none | wall | 4 | Hold a wall | strength hold | toe stand
Jumping calf raise | standing | calves | high | 3 | none | | 0.7 | Rise without the jump | cardio | pogo, pogos, ankle hops, ankle jumps
Hop | standing | calves thighs | high | 4 | none | | 0.7 | Rise onto the toes | cardio | hops, small jumps, jump, jumps
One-leg hop | standing | calves thighs hips | high | 5 | alternate | | 0.8 | Rise onto the toes | cardio | single leg hop, single leg hops
Side hop | standing | calves thighs | high | 4 | byRep | | 0.8 | Step side to side | cardio | lateral hop, side to side hops, line hops, lateral jumps, side jumps
Skipping rope | standing | calves shoulders | high | 4 | none | rope | 0.6 | Without the rope | cardio | jump rope, rope skipping, skipping, imaginary rope
Butt kicks | standing | thighs calves | high | 4 | byRep | | 0.6 | Walk the heels up | cardio | heel kicks, heel flicks, bum kicks, butt kickers
Fast feet | standing | calves thighs | high | 4 | byRep | | 0.3 | Slower | cardio | quick feet, running feet, foot fires
Running on the spot | standing | thighs calves | high | 4 | byRep | | 0.6 | March | cardio | jog on the spot, jogging, running, run, run in place, jog in place, jogging on the spot
Jumping jack with press | standing | shoulders arms thighs calves | high | 5 | none | weight | 1.5 | Step out instead | cardio | jack press, jack with press
Half jack | standing | shoulders thighs calves | high | 3 | none | | 1 | Step out instead | cardio | half jacks
Step jack | standing | shoulders thighs | low | 2 | byRep | | 1.5 | Smaller arms | cardio | low impact jack, stepping jack, step out jack, low impact jumping jack
Seal jack | standing | chest shoulders calves | high | 4 | none | | 1 | Step out instead | cardio | seal jacks, clapping jack
Cross jack | standing | shoulders thighs calves | high | 4 | none | | 1 | Step out instead | cardio | crossover jack, criss cross jack
Side shuffle | standing | thighs hips calves | high | 4 | byRep | | 1 | Step side to side | cardio | lateral shuffle, shuffle
Side step | standing | thighs hips | low | 2 | byRep | | 1.5 | Smaller steps | warm-up | side steps, lateral step, step out
Grapevine | standing | thighs calves | low | 2 | byRep | | 2 | Smaller steps | warm-up | carioca
Knee lift | standing | thighs hips trunk | low | 2 | byRep | | 1.2 | Lower knee | warm-up | knee raise, knee ups, standing knee lift, knee drive, alternating knee lift
Front kick | standing | thighs hips | low | 3 | byRep | | 1.5 | Lower kick | cardio | kick, kicks, forward kick
Side kick | standing | hips thighs | low | 3 | byRep | | 1.5 | Lower kick | cardio | lateral kick
Punch | standing | shoulders arms trunk | low | 3 | byRep | | 0.6 | Feet still | cardio | punches, jabs, jab cross, jab and cross, straight punches, boxing, boxer
Uppercut | standing | shoulders arms trunk | low | 3 | byRep | | 0.6 | Feet still | cardio | uppercuts
Hook punch | standing | shoulders arms trunk | low | 3 | byRep | | 0.7 | Feet still | cardio | hooks
Burpee with press-up | handsFeet | thighs chest shoulders arms trunk | high | 5 | none | | 5 | Step back, no jump | cardio | full burpee, burpee press-up
Burpee without jump | handsFeet | thighs chest shoulders trunk | low | 4 | none | | 4 | Hands on a chair | cardio | step back burpee, low impact burpee, no jump burpee, half burpee step
Burpee to tuck jump | handsFeet | thighs chest shoulders trunk | high | 5 | none | | 5 | Step back, no jump | cardio | burpee tuck jump
Sprawl | handsFeet | thighs shoulders trunk | high | 5 | none | | 3 | Step back | cardio | sprawls
Cross-body climber | handsFeet | trunk shoulders thighs | low | 4 | byRep | | 1 | Step slowly | cardio | cross mountain climber, cross body mountain climber, twisting climber
Slow climber | handsFeet | trunk shoulders thighs | low | 3 | byRep | | 2 | On the knees | trunk | slow mountain climber
Man maker | handsFeet | thighs back chest shoulders trunk arms | high | 5 | none | weight | 9 | No weight | strength | devil press
Get-up | faceUp | trunk shoulders thighs hips | still | 4 | alternate | | 10 | To sitting only | strength | turkish get up, turkish get-up, stand up from the floor
Neck roll | standing | shoulders | still | 1 | byRep | | 4 | Smaller circle | warm-up | neck circles, head roll
Shoulder roll | standing | shoulders | still | 1 | none | | 2 | Smaller circles | warm-up | shoulder rolls, shoulder circles
Arm swing | standing | shoulders chest | still | 1 | none | | 1.5 | Smaller swings | warm-up | arm swings, hug and open, cross body arm swing
Arm raise | standing | shoulders | still | 1 | none | | 2 | Lower | warm-up | arms up and down, overhead reach
Wrist circles | standing | grip | still | 1 | none | | 2 | Smaller circles | warm-up | wrist roll, wrist rotations
Ankle circles | standing | calves | still | 1 | halves | wall | 2 | Smaller circles | warm-up | ankle roll, ankle rotations
Knee circles | standing | thighs calves | still | 1 | none | | 2 | Smaller circles | warm-up | knee rotations
Leg swing | standing | hips thighs | low | 1 | halves | wall | 1.5 | Smaller swings | warm-up | leg swings, front leg swing, side leg swing
Cat and cow | handsFeet | back trunk | still | 1 | none | | 4 | Smaller wave | warm-up mobility | cat cow, cat camel, cat stretch
Thread the needle | handsFeet | back shoulders | still | 1 | each | | 5 | Smaller reach | mobility stretch | thoracic rotation, kneeling rotation
Long lunge stretch | kneeling | hips thighs back | still | 2 | byRep | | 8 | Back knee down | mobility stretch | world's greatest stretch, lunge with rotation stretch, spiderman stretch, runner's lunge
Down dog | handsFeet | shoulders calves back | still | 2 | none | | 6 | Bend the knees | mobility stretch | downward dog, downward facing dog
Cobra | faceDown | back trunk | still | 1 | none | | 6 | On the forearms | mobility stretch | cobra stretch, up dog, upward dog, sphinx
Knee hug | faceUp | hips back | still | 1 | each | | 6 | Both knees | stretch | knee to chest, knees to chest, hug the knees
Lying twist | faceUp | back trunk | still | 1 | each | | 8 | Pillow under the knees | stretch | supine twist, spinal twist, lying spinal twist
Happy baby | faceUp | hips back | still | 1 | none | | 8 | One leg | stretch | happy baby pose
Butterfly stretch | seated | hips thighs | still | 1 | none | | 8 | Sit on a cushion | stretch | butterfly, seated butterfly
Forward fold | standing | thighs back | still | 1 | none | | 6 | Bend the knees | stretch | standing forward fold, ragdoll, toe reach stretch, hang down
Seated forward fold | seated | thighs back | still | 1 | none | | 8 | Bend the knees | stretch | sit and reach
Straddle stretch | seated | hips thighs | still | 1 | none | | 8 | Legs closer | stretch | wide leg stretch, side straddle
Thigh stretch | standing | thighs | still | 1 | each | wall | 6 | Hold a wall | stretch | quad stretch, quadriceps stretch, standing quad stretch
Calf stretch | standing | calves | still | 1 | each | wall | 6 | Closer to the wall | stretch | wall calf stretch
Triceps stretch | standing | arms shoulders | still | 1 | each | | 6 | Lower elbow | stretch | tricep stretch, overhead triceps stretch
Shoulder stretch | standing | shoulders | still | 1 | each | | 6 | Lower arm | stretch | cross body shoulder stretch, arm across
Side stretch | standing | trunk shoulders | still | 1 | each | | 6 | Smaller bend | stretch | side bend stretch, standing side stretch, side reach
Wrist stretch | kneeling | grip | still | 1 | none | | 6 | Less weight | stretch | forearm stretch
Neck stretch | standing | shoulders | still | 1 | each | | 6 | Smaller tilt | stretch | ear to shoulder
Glute stretch | seated | hips | still | 1 | each | | 8 | On a chair | stretch | pigeon, pigeon stretch, pigeon pose, seated glute stretch
Deep squat hold | standing | hips thighs | still | 1 | none | | 6 | Hold on to something | mobility stretch | squat stretch, malasana, garland pose
Deep breathing | standing | trunk | still | 1 | none | | 6 | Seated | stretch rest | breathe, breathing, breath, deep breaths
Corpse rest | faceUp | trunk | still | 1 | none | | 8 | Knees bent | stretch rest | lie still, savasana, final rest
Shake out | standing | shoulders | low | 1 | none | | 1 | Gently | rest | shake it out, shake the legs
`

/** Other names of the moves of moves.ts. */
export const OTHER_NAMES: Readonly<Record<string, string>> = {
  Squat: 'squats, basic squat',
  'Jump squat': 'squat jump, jumping squat, explosive squat',
  'Goblet squat': 'kettlebell squat, cup squat',
  Lunge: 'lunges, alternating lunge',
  'Reverse lunge': 'back lunge, backward lunge, step back lunge, rear lunge',
  'Side lunge': 'lateral lunge',
  'Split squat': 'stationary split squat',
  'Jumping lunge': 'lunge jump, jump lunge, split jump, switch lunge, plyo lunge',
  'Step-up': 'step up, stair step',
  'Calf raise': 'heel raise, toe raise, calf raises',
  'Wall sit': 'wall squat, chair hold',
  Deadlift: 'dead lift',
  'One-leg deadlift': 'single leg deadlift, single leg rdl, single leg romanian deadlift',
  Swing: 'kettlebell swing, dumbbell swing, kb swing',
  'Overhead press': 'shoulder press, military press, dumbbell press, strict press, press',
  'Bent-over row': 'row, bent row, two arm row, barbell row',
  'Biceps curl': 'curl, bicep curl, arm curl, dumbbell curl',
  'Lateral raise': 'side raise, lateral lift, side arm raise',
  'March on the spot': 'march, marching, march in place, marching on the spot',
  'Step touch': 'side tap, step and touch',
  'Arm circles': 'arm circle, arm rotations',
  'Hip circles': 'hip circle, hip rotations',
  'Jumping jack': 'jack, jacks, jumping jacks',
  'High knees': 'high knee run, high knee',
  Skater: 'skaters, skater jump, skater hops, speed skater, ice skater',
  'Shadow boxing': 'shadowboxing',
  'Press-up': 'push-up, pushup, push up, full press-up',
  'Shoulder tap': 'plank shoulder tap, plank tap, shoulder taps, plank with shoulder tap',
  'Mountain climber': 'climber, mountain climbers, running plank',
  Burpee: 'burpees, basic burpee',
  Inchworm: 'inch worm, walk out and in',
  'Bear hold': 'bear plank, beast hold, hover hold',
  Plank: 'plank hold, front plank',
  'Side plank': 'side plank hold, lateral plank',
  'Back extension': 'hyperextension, back raise',
  Swimmer: 'swimmers, swimming, superman swim',
  'Glute bridge': 'bridge, hip bridge, hip lift, hip raise, pelvic lift',
  'One-leg bridge': 'single leg bridge, single leg glute bridge, one leg glute bridge',
  'Dead bug': 'deadbug',
  Crunch: 'crunches, ab crunch, sit-up crunch',
  'Leg lower': 'leg drop, leg lowers, lying leg lower',
  'Floor press': 'chest press, dumbbell chest press, bench press',
  'Chair dip': 'dip, dips, triceps dip, tricep dip, bench dip',
  'Seated twist': 'sitting twist',
  'Hip flexor stretch': 'kneeling hip flexor stretch, low lunge stretch',
  'Hamstring stretch': 'hamstrings stretch, back of the leg stretch',
  'Chest opener': 'chest stretch, open the chest',
  "Child's pose": 'childs pose, child pose',
  'Figure-four stretch': 'figure 4 stretch, figure four, lying glute stretch',
  'Good morning': 'good mornings, hip hinge with hands at the head',
  'Seated march': 'sitting march, chair march',
  'Tall-kneeling press': 'kneeling press, kneeling shoulder press',
  'Half-kneeling chop': 'kneeling chop, kneeling wood chop',
  'Walk it out': 'walk, walking',
}
