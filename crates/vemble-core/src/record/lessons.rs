//! Lessons: what was learnt, offered where it matters again.

use crate::garment::Garment;
use crate::work::{Lesson, LessonOn, Step};
use uuid::Uuid;

/// Lessons that are about a garment, its wearer, its cloth, or a step of its plan; the newest first.
pub fn lessons_for<'a>(
    lessons: &'a [Lesson],
    garment: (Uuid, &Garment),
    wearer: Uuid,
    steps: &[Step],
) -> Vec<&'a Lesson> {
    let (id, facts) = garment;
    let is_about = |lesson: &&Lesson| match &lesson.on {
        LessonOn::Wearer(of) => *of == wearer,
        LessonOn::Garment(of) => *of == id,
        LessonOn::Cloth(name) => name.eq_ignore_ascii_case(&facts.cloth.name),
        LessonOn::Method(step) => steps.contains(step),
        LessonOn::Measurement(what) => facts.levels.iter().any(|l| facts.body_at(l.level) == Some(*what)),
    };
    let mut all: Vec<&Lesson> = lessons.iter().filter(is_about).collect();
    all.sort_by_key(|lesson| (std::cmp::Reverse(lesson.date), lesson.id));
    all
}
