// The finishing step of MurmurHash3 (A. Appleby, 2011, public domain): every bit of the result depends on every bit given.
fn mix(word: u32) -> u32 {
    var x = word;
    x = (x ^ (x >> 16u)) * 0x85ebca6bu;
    x = (x ^ (x >> 13u)) * 0xc2b2ae35u;
    return x ^ (x >> 16u);
}
