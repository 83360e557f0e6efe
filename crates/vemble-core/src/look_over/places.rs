//! What to find out, place by place: the whole, its levels, seams, darts, hems, and what opens.

use super::{Choice, Field, Place, Question};
use crate::figure::{finish_picture, turn_up_picture};
use crate::garment::{
    Band, Closure, Collar, Finish, Garment, GarmentLevel, HemTurn, Kind, Lined, LiningOpens, Neckline,
    Opening, Origin, Pocket, Round, Run, SpecialEdge, StitchedBy, Washed, Width,
};
use crate::length::{Length, Measure, Tape};
use crate::place::Level;

/// Every place where there is something to find out.
pub(super) fn places(garment: &Garment, tape: Tape) -> Vec<Place> {
    let all = [
        whole(garment),
        levels(garment, tape),
        seams(garment, tape),
        darts(garment, tape),
        hems(garment, tape),
        closures(garment, tape),
    ];
    all.into_iter().filter(|p| !p.questions.is_empty()).collect()
}

fn choices<T: Copy + Into<&'static str>>(all: &[T], words: impl Fn(T) -> &'static str) -> Vec<Choice> {
    all.iter().map(|c| Choice { value: (*c).into(), words: words(*c).into(), picture: None }).collect()
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

fn choice<T: Into<&'static str>>(path: &str, value: Option<T>, options: Vec<Choice>) -> Field {
    let value = value.map(Into::into);
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
    if !garment.has_legs() && garment.level(Level::Hem).is_some() {
        questions.push(question(
            "whole.on_the_bias",
            "Is it cut on the bias, or in a circle?",
            "Such an edge drops while it hangs: it hangs for a day before it is marked.",
            found.on_the_bias.is_some(),
            vec![Field::YesNo {
                path: "/found/on_the_bias".into(),
                label: String::new(),
                value: found.on_the_bias,
            }],
        ));
    }
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
                    may_be_empty: false,
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
                    &format!("level.{}", level.level.word()),
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
            may_be_empty: false,
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
    if garment.height_across_back().is_some() {
        questions.push(question(
            "level.across_back",
            "across the back",
            "Whether arms can reach forward: from armhole seam to armhole seam, halfway down the armhole.",
            garment.across_back.is_some(),
            vec![Field::Length {
                path: "/across_back".into(),
                label: "seam to seam".into(),
                shown: garment.across_back.map(|m| tape.figure(m.length)),
                may_be_empty: true,
            }],
        ));
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
            value: f.word(),
            words: f.name().into(),
            picture: Some(finish_picture(*f)),
        });
        let length = |field: &str, label: &str, measure: Option<Measure>| Field::Length {
            path: at(field),
            label: label.into(),
            shown: measure.map(|m| tape.figure(m.length)),
            // The other edge is usually like the first.
            may_be_empty: matches!(field, "allowance_back" | "clips_leave"),
        };
        let yes_no = |field: &str, label: &str, value: bool| Field::YesNo {
            path: at(field),
            label: label.into(),
            value: Some(value),
        };
        let whole = match (seam.seam.is_level(), seam.seam.goes_round(), garment.has_yoke_behind()) {
            (false, ..) => "length of the seam",
            (true, true, _) => "length of the seam, all round",
            (true, false, true) => "length of the seam, from side to side",
            (true, false, false) => "length of one half, from the centre front to the centre back",
        };
        let mut fields = vec![
            length("allowance", "allowance, each edge", Some(seam.allowance)),
            length(
                "allowance_back",
                &format!("{} edge, if another", seam.seam.edges()[1]),
                seam.allowance_back,
            ),
            length("length", whole, Some(seam.length)),
            Field::Choice {
                path: at("finish"),
                label: "raw edges".into(),
                value: Some(seam.finish.word()),
                options: finishes.collect(),
            },
            yes_no("clipped", "clipped", seam.clipped),
            yes_no("graded", "graded", seam.graded),
            yes_no("topstitched", "topstitched", seam.topstitched),
        ];
        if seam.clipped {
            let leave = length("clips_leave", "from the stitching to the clips", seam.clips_leave);
            fields.push(leave);
        }
        let why = match (seam.seam.run(), seam.seam.is_single()) {
            (Run::Across, true) => "What must be unpicked where an altered seam crosses it.",
            (Run::Across, false) => "What shoulders and armholes can give.",
            (Run::Down | Run::DownSleeve, _) => "What it can give when it is let out, and what stays inside.",
        };
        Question {
            settles: Some(at("assumed")),
            removes: Some(format!("/seams/{n}")),
            renames: Some(at("name")),
            ..question(&format!("seam.{}", seam.seam.word()), seam.name(), why, !seam.assumed, fields)
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
            may_be_empty: false,
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
            ..question(&format!("dart.{}", dart.dart.word()), dart.name(), why, !dart.assumed, fields)
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
                value: turn.word(),
                words: turn.name().into(),
                picture: Some(turn_up_picture(*turn, turn_up)),
            }
        });
        let fields = vec![
            Field::Choice {
                path: at("turn"),
                label: "how it is turned".into(),
                value: Some(hem.turn.word()),
                options: turns.collect(),
            },
            Field::Length {
                path: at("turn_up"),
                label: "cloth folded up inside".into(),
                shown: Some(tape.figure(hem.turn_up.length)),
                may_be_empty: false,
            },
            Field::Length {
                path: at("visible"),
                label: "from fold to stitching".into(),
                shown: Some(tape.figure(hem.shows())),
                may_be_empty: true,
            },
            Field::Length {
                path: at("vent"),
                label: "vent or slit, up from the fold".into(),
                shown: hem.vent.map(|vent| tape.figure(vent.length)),
                may_be_empty: true,
            },
            Field::Choice {
                path: at("by"),
                label: "stitched".into(),
                value: Some(hem.by.word()),
                options: choices(StitchedBy::ALL, StitchedBy::name),
            },
        ];
        Question {
            settles: Some(at("assumed")),
            removes: Some(format!("/hems/{n}")),
            ..question(
                &format!("hem.{}", hem.edge.word()),
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
        let labelled = |path: String, label: &str, value: &'static str, options: Vec<Choice>| Field::Choice {
            path,
            label: label.into(),
            value: Some(value),
            options,
        };
        let mut fields = vec![
            labelled(at("closure"), "what", closure.closure.word(), choices(Closure::ALL, Closure::name)),
            labelled(at("at"), "where", closure.at.word(), choices(Opening::ALL, Opening::name)),
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
            values: garment.pockets.iter().map(|p| p.word()).collect(),
            options: choices(Pocket::ALL, Pocket::name),
        }],
    ));
    if garment.back_pockets().is_some() {
        let apart = Field::Length {
            path: "/found/back_pockets_apart".into(),
            label: "between them".into(),
            shown: garment.found.back_pockets_apart.map(|m| tape.figure(m.length)),
            may_be_empty: false,
        };
        let why = "A seam between them brings them closer by all that it takes in.";
        let settled = garment.found.back_pockets_apart.is_some();
        questions.push(question("pockets.apart", "Between the back pockets", why, settled, vec![apart]));
    }
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
                may_be_empty: false,
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
