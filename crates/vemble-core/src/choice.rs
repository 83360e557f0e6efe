//! Choices: enumerations whose every variant has a word in documents and words in a sentence.

/// Makes an enumeration with `ALL` of it, the `word` that each variant has in documents, and its `name` in a sentence.
macro_rules! choice {
    ($(#[$meta:meta])* $name:ident { $($(#[$variant_meta:meta])* $variant:ident => $words:literal,)+ }) => {
        $(#[$meta])*
        #[derive(
            Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash, ::serde::Serialize, ::serde::Deserialize,
            ::utoipa::ToSchema, ::strum::VariantArray, ::strum::IntoStaticStr, ::strum::EnumString,
        )]
        #[serde(rename_all = "snake_case")]
        #[strum(serialize_all = "snake_case")]
        #[allow(missing_docs, reason = "each has its words beside it")]
        pub enum $name { $($(#[$variant_meta])* $variant,)+ }

        impl $name {
            /// All of them.
            pub const ALL: &'static [Self] = <Self as ::strum::VariantArray>::VARIANTS;

            /// Its word in documents.
            pub fn word(self) -> &'static str {
                self.into()
            }

            /// In words.
            pub const fn name(self) -> &'static str {
                match self { $(Self::$variant => $words,)+ }
            }
        }
    };
}

pub(crate) use choice;
