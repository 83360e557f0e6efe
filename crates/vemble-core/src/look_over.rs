//! The look-over: what to find out about a garment before anything is pinned, one question at a time, each with what its
//! answer will be used for. Anything may be skipped; what nobody answered stays assumed.

use crate::figure::{Picture, Stand, finish_picture, stand, turn_up_picture};
use crate::garment::{
    Band, Closure, ClosureFacts, Collar, Dart, DartFacts, Doubt, Finish, Garment, GarmentLevel, HemEdge,
    HemFacts, HemTurn, Kind, Level, Lined, LiningOpens, Neckline, Opening, Origin, Pocket, Round, Seam,
    SeamFacts, SpecialEdge, StitchedBy, Washed, Width, doubts, starting_seam, word,
};
use crate::length::{Figure, Length, Measure, Tape, Unit};
use serde::Serialize;
use utoipa::ToSchema;

/// A garment as looked over so far.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct LookOver {
    /// What to find out, place by place.
    pub places: Vec<Place>,
    /// How many questions are settled.
    pub settled: usize,
    /// Of how many.
    pub of: usize,
    /// Figures that look like a slip.
    pub doubts: Vec<Doubt>,
    /// What to know before going on.
    pub cautions: Vec<Caution>,
    /// Parts that could be added.
    pub additions: Vec<Addition>,
    /// The garment as it is now known.
    pub stand: Stand,
}

/// Questions about one place of the garment.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Place {
    /// Which place.
    pub name: &'static str,
    /// What it is good for, in one line.
    pub why: &'static str,
    /// What to find out there.
    pub questions: Vec<Question>,
}

/// One thing to find out.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Question {
    /// Its name, which parts of the stand carry too: `seam.outseam`, `level.hip`.
    pub key: String,
    /// What is asked about.
    pub title: String,
    /// What the answer is used for.
    pub why: String,
    /// What can be entered.
    pub fields: Vec<Field>,
    /// Somebody answered.
    pub settled: bool,
    /// Set this to false with any answer: a JSON pointer into the garment.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub settles: Option<String>,
    /// The part can be taken away: a JSON pointer to it.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub removes: Option<String>,
    /// The part can be given a name of its own: a JSON pointer to it.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub renames: Option<String>,
}

/// Something to enter. Every `path` is a JSON pointer into the garment.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case", tag = "is")]
pub enum Field {
    /// A length.
    Length {
        /// Where it goes.
        path: String,
        /// What it is.
        label: String,
        /// As it is now.
        shown: Option<Figure>,
    },
    /// A width, laid flat or all round.
    Width {
        /// Where it goes.
        path: String,
        /// What it is.
        label: String,
        /// As it is now.
        shown: Figure,
        /// It is measured flat.
        laid_flat: bool,
        /// The whole girth, in words.
        girth: String,
    },
    /// One of several.
    Choice {
        /// Where it goes.
        path: String,
        /// What it is.
        label: String,
        /// The word chosen now.
        value: Option<String>,
        /// What there is to choose from.
        options: Vec<Choice>,
    },
    /// Any of several, as a list.
    Several {
        /// Where the list goes.
        path: String,
        /// What it is.
        label: String,
        /// The words chosen now.
        values: Vec<String>,
        /// What there is to choose from.
        options: Vec<Choice>,
    },
    /// Yes or no.
    YesNo {
        /// Where it goes.
        path: String,
        /// What it is.
        label: String,
        /// The answer now.
        value: Option<bool>,
    },
    /// A small number.
    Count {
        /// Where it goes.
        path: String,
        /// What it is.
        label: String,
        /// The number now.
        value: u8,
    },
    /// Words.
    Text {
        /// Where it goes.
        path: String,
        /// What it is.
        label: String,
        /// As it is now.
        value: String,
    },
}

/// Something to choose.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Choice {
    /// The word in the document.
    pub value: String,
    /// In words.
    pub words: String,
    /// How it looks, cut through.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub picture: Option<Picture>,
}

/// Something to know before going on.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct Caution {
    /// It must not be altered at all.
    pub grave: bool,
    /// What it is about.
    pub title: &'static str,
    /// What to do.
    pub says: String,
}

/// A part that could be added to this garment.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Addition {
    /// What it is, in words.
    pub words: String,
    /// The list it is added to.
    pub list: &'static str,
    /// The part, to be put at the end of the list.
    pub part: Part,
}

/// A part as it stands in a document.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
#[serde(untagged)]
pub enum Part {
    /// A level, with a figure between its neighbours'.
    Level(GarmentLevel),
    /// A seam.
    Seam(SeamFacts),
    /// A pair of darts.
    Dart(DartFacts),
    /// A hem.
    Hem(HemFacts),
    /// A closure.
    Closure(ClosureFacts),
}

/// Everything to find out about `garment`, with figures on `tape`.
pub fn look_over(garment: &Garment, tape: Tape) -> LookOver {
    let garment = &*garment.with_levels_in_order();
    let places: Vec<Place> = [
        whole(garment),
        levels(garment, tape),
        seams(garment, tape),
        darts(garment, tape),
        hems(garment, tape),
        closures(garment, tape),
    ]
    .into_iter()
    .filter(|p| !p.questions.is_empty())
    .collect();
    let questions = || places.iter().flat_map(|p| &p.questions);
    let as_it_is =
        crate::check::Subject { garment, seams: &[], worn: crate::fitting::Worn::RightSideOut, tape };
    LookOver {
        settled: questions().filter(|q| q.settled).count(),
        of: questions().count(),
        doubts: doubts(garment, tape),
        cautions: cautions(garment),
        additions: additions(garment),
        stand: stand(garment, &[], &crate::check::levels(&as_it_is)),
        places,
    }
}

fn choices<T: Serialize + Copy>(all: &[T], words: impl Fn(T) -> &'static str) -> Vec<Choice> {
    all.iter().map(|c| Choice { value: word(c), words: words(*c).into(), picture: None }).collect()
}

fn question(key: &str, title: &str, why: &str, settled: bool, fields: Vec<Field>) -> Question {
    Question {
        key: key.into(),
        title: title.into(),
        why: why.into(),
        fields,
        settled,
        settles: None,
        removes: None,
        renames: None,
    }
}

fn choice<T: Serialize>(path: &str, value: Option<T>, options: Vec<Choice>) -> Field {
    let value = value.map(|v| word(&v));
    Field::Choice { path: path.into(), label: String::new(), value, options }
}

fn whole(garment: &Garment) -> Place {
    let found = &garment.found;
    let mut questions = vec![
        question(
            "whole.origin",
            "Where it came from",
            "Second-hand clothes are washed before anybody tries them on.",
            found.origin.is_some(),
            vec![choice("/found/origin", found.origin, choices(Origin::ALL, Origin::name))],
        ),
        question(
            "whole.washed",
            "Washed already?",
            "Unwashed cloth still shrinks: the finished length would lose it.",
            found.washed.is_some(),
            vec![choice("/found/washed", found.washed, choices(Washed::ALL, Washed::name))],
        ),
        question(
            "whole.one_way",
            "Does a print, nap or check run one way?",
            "Pieces must then lie the same way up, and stripes meet at the seams.",
            found.one_way.is_some(),
            vec![Field::YesNo { path: "/found/one_way".into(), label: String::new(), value: found.one_way }],
        ),
        question(
            "whole.edge",
            "What is its lower edge like?",
            "A border or scallops cannot be cut: it is shortened from above instead.",
            found.edge.is_some(),
            vec![choice("/found/edge", found.edge, choices(SpecialEdge::ALL, SpecialEdge::name))],
        ),
        question(
            "whole.lined",
            "Is it lined?",
            "A lining is opened first, and goes back last.",
            found.lined.is_some(),
            vec![choice("/found/lined", found.lined, choices(Lined::ALL, Lined::name))],
        ),
    ];
    if matches!(found.lined, Some(Lined::Partly | Lined::Fully)) {
        questions.push(question(
            "whole.lining_opens",
            "Where does the lining open?",
            "That is the way in: the plan begins there.",
            found.lining_opens.is_some(),
            vec![choice(
                "/found/lining_opens",
                found.lining_opens,
                choices(LiningOpens::ALL, LiningOpens::name),
            )],
        ));
    }
    if garment.kind == Kind::Coverall || found.protective.is_some() {
        questions.push(question(
            "whole.protective",
            "Does it protect: flame-resistant, high-visibility, motorcycle, life-saving?",
            "Altering voids its protection: ask the maker instead.",
            found.protective.is_some(),
            vec![Field::YesNo {
                path: "/found/protective".into(),
                label: String::new(),
                value: found.protective,
            }],
        ));
    }
    let remarks =
        Field::Text { path: "/found/remarks".into(), label: String::new(), value: found.remarks.clone() };
    questions.push(question(
        "whole.remarks",
        "Stains, faded places, old fold lines, repairs",
        "What was hidden may show once a seam moves.",
        !found.remarks.is_empty(),
        vec![remarks],
    ));
    Place { name: "The whole of it", why: "What it is, and what it has been through.", questions }
}

fn levels(garment: &Garment, tape: Tape) -> Place {
    let mut sorted: Vec<(usize, &GarmentLevel)> = garment.levels.iter().enumerate().collect();
    sorted.sort_by_key(|(_, l)| l.level);
    let mut questions: Vec<Question> = sorted
        .into_iter()
        .map(|(n, level)| {
            let name = level.level.name();
            let round = match garment.round(level.level) {
                Round::Whole => "",
                Round::Leg => ", each leg",
                Round::Sleeve => ", each sleeve",
            };
            let fields = vec![
                Field::Width {
                    path: format!("/levels/{n}/width"),
                    label: if level.level == Level::Shoulder { "tip to tip".into() } else { "width".into() },
                    shown: tape.figure(level.width.measure().length),
                    laid_flat: matches!(level.width, Width::LaidFlat(_)),
                    girth: tape.show(level.width.girth()),
                },
                Field::Length {
                    path: format!("/levels/{n}/station"),
                    label: if level.level.is_of_sleeve() {
                        "up from the sleeve hem".into()
                    } else {
                        "up from the hem".into()
                    },
                    shown: Some(tape.figure(level.station.length)),
                },
            ];
            let why = match (level.level, garment.body_at(level.level)) {
                (Level::Hem, _) if garment.has_legs() => {
                    "Whether a foot goes through, and where tapering starts.".into()
                }
                (Level::Hem, _) => "How wide the lower edge falls.".into(),
                (Level::SleeveHem, _) => "Whether a hand goes through.".into(),
                (Level::Neck, _) => "Whether a head goes through, and how the neckline lies.".into(),
                (Level::Shoulder, _) => "Whether the shoulders sit where yours end.".into(),
                (_, Some(what)) => format!("Its ease over the {}.", what.name()),
                (_, None) => "The shape between the levels above and below.".into(),
            };
            Question {
                settles: Some(format!("/levels/{n}/assumed")),
                removes: (!garment.kind.template().levels.iter().any(|l| l.0 == level.level))
                    .then(|| format!("/levels/{n}")),
                ..question(
                    &format!("level.{}", word(&level.level)),
                    &format!("{name}{round}"),
                    &why,
                    !level.assumed,
                    fields,
                )
            }
        })
        .collect();
    if let Some(length) = garment.sleeve_length {
        let field = Field::Length {
            path: "/sleeve_length".into(),
            label: "shoulder tip to edge".into(),
            shown: Some(tape.figure(length.length)),
        };
        let settled = garment.level(Level::SleeveHem).is_some_and(|l| !l.assumed);
        let mut sleeve = question(
            "level.sleeve_length",
            "sleeve length",
            "Where the sleeve ends on the arm.",
            settled,
            vec![field],
        );
        sleeve.removes = Some("/sleeve_length".into());
        questions.push(sleeve);
    }
    Place {
        name: "Measured lying flat",
        why: "A few widths make the garment true; the rest follows from them.",
        questions,
    }
}

fn seams(garment: &Garment, tape: Tape) -> Place {
    let questions = garment.seams.iter().enumerate().map(|(n, seam)| {
        let at = |field: &str| format!("/seams/{n}/{field}");
        let finishes = Finish::ALL.iter().map(|f| Choice {
            value: word(f),
            words: f.name().into(),
            picture: Some(finish_picture(*f)),
        });
        let length = |field: &str, label: &str, measure: Option<Measure>| Field::Length {
            path: at(field),
            label: label.into(),
            shown: measure.map(|m| tape.figure(m.length)),
        };
        let yes_no = |field: &str, label: &str, value: bool| Field::YesNo {
            path: at(field),
            label: label.into(),
            value: Some(value),
        };
        let fields = vec![
            length("allowance", "allowance, each edge", Some(seam.allowance)),
            length("allowance_back", "back edge, if another", seam.allowance_back),
            length("length", "length of the seam", Some(seam.length)),
            Field::Choice {
                path: at("finish"),
                label: "raw edges".into(),
                value: Some(word(&seam.finish)),
                options: finishes.collect(),
            },
            yes_no("clipped", "clipped", seam.clipped),
            yes_no("graded", "graded", seam.graded),
            yes_no("topstitched", "topstitched", seam.topstitched),
        ];
        let why = match seam.seam {
            Seam::YokeSeam | Seam::WaistSeam | Seam::NeckSeam => {
                "What must be unpicked where an altered seam crosses it."
            }
            Seam::ShoulderSeam | Seam::ArmholeSeam => "What shoulders and armholes can give.",
            _ => "What it can give when it is let out, and what stays inside.",
        };
        Question {
            settles: Some(at("assumed")),
            removes: Some(format!("/seams/{n}")),
            renames: Some(at("name")),
            ..question(&format!("seam.{}", word(&seam.seam)), seam.name(), why, !seam.assumed, fields)
        }
    });
    Place {
        name: "Inside its seams",
        why: "Turn it inside out: what is hidden there decides what can be done.",
        questions: questions.collect(),
    }
}

fn darts(garment: &Garment, tape: Tape) -> Place {
    let questions = garment.darts.iter().enumerate().map(|(n, dart)| {
        let length = |field: &str, label: &str, measure: Measure| Field::Length {
            path: format!("/darts/{n}/{field}"),
            label: label.into(),
            shown: Some(tape.figure(measure.length)),
        };
        let fields = vec![
            length("fold_depth", "fold depth, each dart", dart.fold_depth),
            length("length", "length", dart.length),
            length("from_centre", "from the middle", dart.from_centre),
        ];
        let why = "A dart can be deepened, let out or moved; a pair takes in four fold depths.";
        Question {
            settles: Some(format!("/darts/{n}/assumed")),
            removes: Some(format!("/darts/{n}")),
            renames: Some(format!("/darts/{n}/name")),
            ..question(&format!("dart.{}", word(&dart.dart)), dart.name(), why, !dart.assumed, fields)
        }
    });
    Place { name: "Darts", why: "Pairs, left and right.", questions: questions.collect() }
}

fn hems(garment: &Garment, tape: Tape) -> Place {
    let questions = garment.hems.iter().enumerate().map(|(n, hem)| {
        let at = |field: &str| format!("/hems/{n}/{field}");
        let turns = HemTurn::ALL.iter().map(|turn| {
            let turn_up =
                if *turn == hem.turn { hem.turn_up.length } else { Length::from_mm(turn.turn_up_mm()) };
            Choice {
                value: word(turn),
                words: turn.name().into(),
                picture: Some(turn_up_picture(*turn, turn_up)),
            }
        });
        let fields = vec![
            Field::Choice {
                path: at("turn"),
                label: "how it is turned".into(),
                value: Some(word(&hem.turn)),
                options: turns.collect(),
            },
            Field::Length {
                path: at("turn_up"),
                label: "cloth folded up inside".into(),
                shown: Some(tape.figure(hem.turn_up.length)),
            },
            Field::Choice {
                path: at("by"),
                label: "stitched".into(),
                value: Some(word(&hem.by)),
                options: choices(StitchedBy::ALL, StitchedBy::name),
            },
        ];
        Question {
            settles: Some(at("assumed")),
            removes: Some(format!("/hems/{n}")),
            ..question(
                &format!("hem.{}", word(&hem.edge)),
                &format!("hem, {}", hem.edge.name()),
                "How far it can be let down, and what shortening leaves.",
                !hem.assumed,
                fields,
            )
        }
    });
    Place { name: "Hems", why: "What is folded up inside can be let down.", questions: questions.collect() }
}

fn closures(garment: &Garment, tape: Tape) -> Place {
    let mut questions: Vec<Question> = Vec::new();
    for (n, closure) in garment.closures.iter().enumerate() {
        let at = |field: &str| format!("/closures/{n}/{field}");
        let labelled = |path: String, label: &str, value: String, options: Vec<Choice>| Field::Choice {
            path,
            label: label.into(),
            value: Some(value),
            options,
        };
        let mut fields = vec![
            labelled(at("closure"), "what", word(&closure.closure), choices(Closure::ALL, Closure::name)),
            labelled(at("at"), "where", word(&closure.at), choices(Opening::ALL, Opening::name)),
        ];
        if matches!(closure.closure, Closure::Buttons | Closure::Hooks | Closure::Lacing) {
            fields.push(Field::Count { path: at("count"), label: "how many".into(), value: closure.count });
        }
        let title = format!("{}, {}", closure.closure.name(), closure.at.name());
        let why = "Its seam cannot be made narrower, and it is opened before anything there is altered.";
        let mut question = question(&format!("closure.{n}"), &title, why, true, fields);
        question.removes = Some(format!("/closures/{n}"));
        questions.push(question);
    }
    questions.push(question(
        "pockets",
        "Pockets",
        "An altered seam that crosses a pocket takes it along.",
        true,
        vec![Field::Several {
            path: "/pockets".into(),
            label: String::new(),
            values: garment.pockets.iter().map(word).collect(),
            options: choices(Pocket::ALL, Pocket::name),
        }],
    ));
    if garment.hangs_from_shoulders() || garment.neckline() == Neckline::Strapless {
        let neck = [
            choice("/neckline", Some(garment.neckline()), choices(Neckline::ALL, Neckline::name)),
            choice("/collar", Some(garment.collar()), choices(Collar::ALL, Collar::name)),
        ];
        let why = "Taking in at the shoulders or the centre changes what is set on there.";
        questions.push(question("collar", "Neckline and collar", why, true, neck.into()));
    }
    if let Some(depth) = garment.waistband_depth {
        let fields = vec![
            Field::Length {
                path: "/waistband_depth".into(),
                label: "depth".into(),
                shown: Some(tape.figure(depth.length)),
            },
            choice("/found/band", garment.found.band, choices(Band::ALL, Band::name)),
            Field::Count {
                path: "/belt_loops".into(),
                label: "belt loops".into(),
                value: garment.belt_loops,
            },
        ];
        let why = "How the waist is opened to take it in, and what comes off first.";
        let mut band = question("band", "Waistband", why, garment.found.band.is_some(), fields);
        band.removes = Some("/waistband_depth".into());
        questions.push(band);
    }
    Place {
        name: "What opens, and what is set on",
        why: "Whatever is in the way comes off first and goes back last.",
        questions,
    }
}

fn cautions(garment: &Garment) -> Vec<Caution> {
    let mut cautions = Vec::new();
    let found = &garment.found;
    if found.protective == Some(true) {
        cautions.push(Caution {
            grave: true,
            title: "Do not alter this",
            says: "Altering protective clothing voids its protection. Ask the maker.".into(),
        });
    }
    let second_hand = matches!(found.origin, Some(Origin::Thrifted | Origin::Inherited));
    if second_hand && !matches!(found.washed, Some(Washed::Once | Washed::Often)) {
        cautions.push(Caution {
            grave: false,
            title: "Wash it first",
            says: "Second-hand clothes are washed before they are tried on.".into(),
        });
    }
    let cloth = &garment.cloth;
    if found.washed == Some(Washed::Never) && cloth.shrinks_along_percent > 0 {
        cautions.push(Caution {
            grave: false,
            title: "It will shrink",
            says: format!(
                "Unwashed {} still loses about {} % along and {} % across (teaching values). Wash it two or three times before a hem is cut.",
                cloth.name, cloth.shrinks_along_percent, cloth.shrinks_across_percent
            ),
        });
    }
    let height = garment.wearer.get(crate::body::BodyMeasurement::Height);
    if height.is_some_and(|h| h < Length::from_mm(1500)) {
        cautions.push(Caution {
            grave: false,
            title: "Worn by a child",
            says: "Drawstrings, small parts and nightwear are regulated: follow local rules. No pins in mouths, and stay with the child while it is pinned.".into(),
        });
    }
    if cloth.shows_holes {
        cautions.push(Caution {
            grave: false,
            title: "Old stitch holes will show",
            says: format!("In {} a seam that is let out leaves its old line behind.", cloth.name),
        });
    }
    cautions
}

fn additions(garment: &Garment) -> Vec<Addition> {
    let mut additions = Vec::new();
    let template = garment.kind.template();
    for spec in template.seams.iter().chain(template.may_have).filter(|s| garment.seam(s.seam).is_none()) {
        additions.push(Addition {
            words: spec.seam.name().into(),
            list: "seams",
            part: Part::Seam(starting_seam(garment, spec)),
        });
    }
    let mm = |mm| Measure { length: Length::from_mm(mm), unit: Unit::Cm };
    for dart in Dart::ALL.iter().filter(|d| garment.darts.iter().all(|other| other.dart != **d)) {
        let upper = matches!(dart, Dart::Bust | Dart::Shoulder | Dart::FrontFishEye | Dart::BackFishEye);
        if upper && !garment.hangs_from_shoulders() {
            continue;
        }
        let length = if matches!(dart, Dart::FrontFishEye | Dart::BackFishEye) { 280 } else { 110 };
        let part = DartFacts {
            dart: *dart,
            name: None,
            fold_depth: mm(10),
            length: mm(length),
            from_centre: mm(85),
            assumed: true,
        };
        additions.push(Addition {
            words: format!("pair of {}s", dart.name()),
            list: "darts",
            part: Part::Dart(part),
        });
    }
    for level in Level::ALL.into_iter().filter(|l| garment.level(*l).is_none()) {
        if let Some(part) = level_between(garment, level) {
            additions.push(Addition {
                words: format!("level: {}", level.name()),
                list: "levels",
                part: Part::Level(part),
            });
        }
    }
    for edge in HemEdge::ALL.iter().filter(|e| garment.hems.iter().all(|h| h.edge != **e)) {
        let fits = match edge {
            HemEdge::Body => !garment.has_legs(),
            HemEdge::Leg => garment.has_legs(),
            HemEdge::Sleeve => garment.sleeve_length.is_some(),
        };
        if fits {
            let part = HemFacts {
                edge: *edge,
                turn: HemTurn::Double,
                turn_up: mm(20),
                by: StitchedBy::Machine,
                assumed: true,
            };
            additions.push(Addition {
                words: format!("hem, {}", edge.name()),
                list: "hems",
                part: Part::Hem(part),
            });
        }
    }
    let part = ClosureFacts { closure: Closure::Zip, at: Opening::CentreBack, count: 1 };
    additions.push(Addition { words: "closure".into(), list: "closures", part: Part::Closure(part) });
    additions
}

/// A level halfway between its neighbours, as far up as the body has it between theirs.
fn level_between(garment: &Garment, level: Level) -> Option<GarmentLevel> {
    let same = |l: &&GarmentLevel| l.level.is_of_sleeve() == level.is_of_sleeve();
    let above = garment.levels.iter().filter(same).filter(|l| l.level < level).max_by_key(|l| l.level)?;
    let below = garment.levels.iter().filter(same).filter(|l| l.level > level).min_by_key(|l| l.level)?;
    let fits = !matches!(level, Level::Shoulder | Level::Neck)
        && above.level != Level::Shoulder
        && above.level != Level::Neck;
    let half = |a: Length, b: Length| (a + b).fraction(1, 2).nearest(Length::from_mm(5));
    fits.then(|| GarmentLevel {
        level,
        station: Measure {
            length: half(above.station.length, below.station.length),
            unit: above.station.unit,
        },
        width: Width::Girth(Measure {
            length: girth_between(garment, above, below),
            unit: above.station.unit,
        }),
        assumed: true,
    })
}

/// Halfway between two girths; where one goes round both legs and the other round one, near the one below.
fn girth_between(garment: &Garment, above: &GarmentLevel, below: &GarmentLevel) -> Length {
    match garment.round(above.level) == garment.round(below.level) {
        true => (above.width.girth() + below.width.girth()).fraction(1, 2).nearest(Length::from_mm(5)),
        false => below.width.girth(),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::body::Wearer;
    use crate::document::{Document, VERSION};
    use crate::garment::{Beginning, begin, cloth_named};
    use crate::tests::{m, taken};

    fn begun(kind: Kind) -> Garment {
        let wearer = Wearer { name: "Odile".into(), ..Default::default() };
        let cloth = cloth_named(kind.template().cloth).unwrap();
        begin(Beginning { name: "it".into(), kind, toile: false, wearer, cloth })
    }

    fn keys(over: &LookOver) -> Vec<&str> {
        over.places.iter().flat_map(|p| &p.questions).map(|q| q.key.as_str()).collect()
    }

    #[test]
    fn everything_that_can_be_picked_on_the_stand_can_be_asked_about() {
        for kind in Kind::ALL {
            let over = look_over(&begun(kind), Tape::Cm);
            let keys = keys(&over);
            for part in over.stand.views.iter().flat_map(|v| &v.parts) {
                let Some(key) = &part.key else { continue };
                let asked = if key.starts_with("pocket.") { "pockets" } else { key };
                assert!(keys.contains(&asked), "{kind:?}: {key}");
            }
            for (n, key) in keys.iter().enumerate() {
                assert!(!keys[..n].contains(key), "{kind:?} asks twice about {key}");
            }
            let whys = over.places.iter().flat_map(|p| &p.questions);
            assert!(
                whys.clone().all(|q| !q.why.is_empty() && !q.fields.is_empty()),
                "every answer says what it is for"
            );
        }
    }

    #[test]
    fn whatever_is_added_fits_the_garment_and_is_asked_about() {
        for kind in Kind::ALL {
            let garment = begun(kind);
            for addition in look_over(&garment, Tape::Cm).additions {
                let mut more = garment.clone();
                match addition.part.clone() {
                    Part::Level(level) => more.levels.push(level),
                    Part::Seam(seam) => more.seams.push(seam),
                    Part::Dart(dart) => more.darts.push(dart),
                    Part::Hem(hem) => more.hems.push(hem),
                    Part::Closure(closure) => more.closures.push(closure),
                }
                let document = Document { version: VERSION, garment: more.clone(), try_ons: vec![] };
                assert_eq!(document.faults(), [], "{kind:?} with {}", addition.words);
                let before = look_over(&garment, Tape::Cm).of;
                assert!(look_over(&more, Tape::Cm).of > before, "{kind:?} with {}", addition.words);
            }
        }
    }

    #[test]
    fn an_answer_settles_its_question_and_opens_the_next() {
        let mut coat = begun(Kind::LinedCoat);
        let before = look_over(&coat, Tape::Cm);
        coat.found.lined = Some(Lined::Fully);
        let lined = look_over(&coat, Tape::Cm);
        assert!(
            keys(&lined).contains(&"whole.lining_opens") && !keys(&before).contains(&"whole.lining_opens")
        );
        assert_eq!((lined.settled, lined.of), (before.settled + 1, before.of + 1));
        coat.levels[0].assumed = false;
        coat.levels[0].width = Width::LaidFlat(m("9 1/2 in"));
        let measured = look_over(&coat, Tape::In);
        assert_eq!(measured.settled, lined.settled + 1);
        let neck = measured.places.iter().flat_map(|p| &p.questions).find(|q| q.key == "level.neck").unwrap();
        let Field::Width { shown, girth, laid_flat, .. } = &neck.fields[0] else { panic!("a width") };
        assert_eq!((shown.text.as_str(), girth.as_str(), *laid_flat), ("9 1/2 in", "19 in", true));
    }

    #[test]
    fn cautions_come_with_what_was_found() {
        let titles = |change: fn(&mut Garment)| -> Vec<&'static str> {
            let mut garment = begun(Kind::Coverall);
            change(&mut garment);
            look_over(&garment, Tape::Cm).cautions.into_iter().map(|c| c.title).collect()
        };
        assert!(titles(|_| ()).is_empty());
        assert_eq!(titles(|g| g.found.protective = Some(true)), ["Do not alter this"]);
        assert_eq!(titles(|g| g.found.origin = Some(Origin::Thrifted)), ["Wash it first"]);
        let washed = |g: &mut Garment| {
            g.found.origin = Some(Origin::Thrifted);
            g.found.washed = Some(Washed::Often);
        };
        assert!(titles(washed).is_empty());
        assert_eq!(titles(|g| g.found.washed = Some(Washed::Never)), ["It will shrink"]);
        assert_eq!(titles(|g| g.cloth = cloth_named("satin").unwrap()), ["Old stitch holes will show"]);
        let child = |g: &mut Garment| {
            g.wearer.measurements = vec![taken(crate::body::BodyMeasurement::Height, "120 cm")];
        };
        assert_eq!(titles(child), ["Worn by a child"]);
    }
}
