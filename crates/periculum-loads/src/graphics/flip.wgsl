// Flips bits of one word, as a fault would.

@group(0) @binding(0) var<storage, read_write> words: array<u32>;
@group(0) @binding(1) var<uniform> where_and_what: vec4<u32>;

@compute @workgroup_size(1)
fn flip() {
    let word = where_and_what.x % arrayLength(&words);
    words[word] = words[word] ^ where_and_what.y;
}
