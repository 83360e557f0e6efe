//! What opens something to whoever has it: tokens in cookies and addresses, codes that people read out. Only hashes are kept.

use rand::Rng;
use sha2::{Digest, Sha256};

/// Signs that nobody takes for another: eight of them are 40 bits, guessed ten times a minute at most.
const SIGNS: &[u8; 32] = b"23456789ABCDEFGHJKLMNPQRSTUVWXYZ";
const SIGNS_IN_CODE: usize = 8;

/// 256 random bits, in hexadecimal.
pub fn new_token() -> String {
    let bytes: [u8; 32] = rand::rng().random();
    bytes.iter().map(|byte| format!("{byte:02x}")).collect()
}

/// What is kept of a token.
pub fn hash_of(token: &str) -> Vec<u8> {
    Sha256::digest(token.as_bytes()).to_vec()
}

/// Eight signs in two groups.
pub fn new_code() -> String {
    let mut random = rand::rng();
    let mut code: String =
        (0..SIGNS_IN_CODE).map(|_| char::from(SIGNS[random.random_range(0..SIGNS.len())])).collect();
    code.insert(SIGNS_IN_CODE / 2, '-');
    code
}

/// What is kept of a code, however it was typed: with or without its hyphen, in small letters.
pub fn hash_of_code(code: &str) -> Vec<u8> {
    hash_of(&code.chars().filter(char::is_ascii_alphanumeric).collect::<String>().to_uppercase())
}
