//! A folder of attributes behind which a program stands, as the kernel's drivers stand behind theirs: each write is a command
//! that is taken or refused, and each read is what there is to say now. Served by FUSE.

use std::ffi::OsStr;
use std::path::Path;
use std::sync::{Arc, Mutex, MutexGuard, PoisonError};
use std::time::{Duration, SystemTime, UNIX_EPOCH};

use fuser::{
    BackgroundSession, FileAttr, FileType, Filesystem, MountOption, ReplyAttr, ReplyData, ReplyDirectory, ReplyEntry,
    ReplyOpen, ReplyWrite, Request, TimeOrNow,
};

/// What stands behind the attributes.
pub(crate) trait Files: Send + 'static {
    fn names(&self) -> Vec<String>;
    fn text(&self, name: &str) -> Option<String>;
    /// Takes what is written to an attribute, or refuses it.
    fn write(&mut self, name: &str, text: &str) -> Option<()>;
}

/// A folder that is served as long as this lives.
pub(crate) struct Served(#[allow(dead_code, reason = "it is held, not looked at")] BackgroundSession);

/// Serves attributes in the place of a folder; none where this machine lets nobody do so.
pub(crate) fn serve<F: Files>(folder: &Path, files: Arc<Mutex<F>>) -> Option<Served> {
    let options = [MountOption::FSName("attributes".into())];
    match fuser::spawn_mount2(Attributes(files), folder, &options) {
        Ok(session) => Some(Served(session)),
        Err(why) => {
            eprintln!("skipped: no folder can be served through /dev/fuse: {why}");
            None
        }
    }
}

/// Nobody keeps what it read: it may be something else the next moment.
const NEVER: Duration = Duration::ZERO;
const FOLDER: u64 = 1;
const PAGE: u64 = 4096;

struct Attributes<F>(Arc<Mutex<F>>);

impl<F: Files> Attributes<F> {
    fn files(&self) -> MutexGuard<'_, F> {
        self.0.lock().unwrap_or_else(PoisonError::into_inner)
    }

    fn name(&self, node: u64) -> Option<String> {
        self.files().names().get(usize::try_from(node.checked_sub(FOLDER + 1)?).ok()?).cloned()
    }

    fn attributes(&self, node: u64) -> Option<FileAttr> {
        if node != FOLDER {
            self.name(node)?;
        }
        let (kind, perm) = if node == FOLDER { (FileType::Directory, 0o755) } else { (FileType::RegularFile, 0o644) };
        let (uid, gid) = (rustix::process::getuid().as_raw(), rustix::process::getgid().as_raw());
        let (atime, mtime, ctime, crtime) = (UNIX_EPOCH, UNIX_EPOCH, UNIX_EPOCH, UNIX_EPOCH);
        let (ino, size, blocks, nlink, rdev, blksize, flags) = (node, PAGE, 0, 1, 0, PAGE as u32, 0);
        Some(FileAttr {
            ino,
            size,
            blocks,
            atime,
            mtime,
            ctime,
            crtime,
            kind,
            perm,
            nlink,
            uid,
            gid,
            rdev,
            blksize,
            flags,
        })
    }
}

impl<F: Files> Filesystem for Attributes<F> {
    fn lookup(&mut self, _: &Request<'_>, _: u64, name: &OsStr, reply: ReplyEntry) {
        let place = self.files().names().iter().position(|known| OsStr::new(known) == name);
        match place.and_then(|place| self.attributes(place as u64 + FOLDER + 1)) {
            Some(attributes) => reply.entry(&NEVER, &attributes, 0),
            None => reply.error(libc::ENOENT),
        }
    }

    fn getattr(&mut self, _: &Request<'_>, node: u64, _: Option<u64>, reply: ReplyAttr) {
        match self.attributes(node) {
            Some(attributes) => reply.attr(&NEVER, &attributes),
            None => reply.error(libc::ENOENT),
        }
    }

    /// The kernel's attributes let themselves be truncated, and stay as they are.
    fn setattr(
        &mut self,
        request: &Request<'_>,
        node: u64,
        _: Option<u32>,
        _: Option<u32>,
        _: Option<u32>,
        _: Option<u64>,
        _: Option<TimeOrNow>,
        _: Option<TimeOrNow>,
        _: Option<SystemTime>,
        _: Option<u64>,
        _: Option<SystemTime>,
        _: Option<SystemTime>,
        _: Option<SystemTime>,
        _: Option<u32>,
        reply: ReplyAttr,
    ) {
        self.getattr(request, node, None, reply);
    }

    fn open(&mut self, _: &Request<'_>, _: u64, _: i32, reply: ReplyOpen) {
        reply.opened(0, fuser::consts::FOPEN_DIRECT_IO);
    }

    fn read(
        &mut self,
        _: &Request<'_>,
        node: u64,
        _: u64,
        offset: i64,
        size: u32,
        _: i32,
        _: Option<u64>,
        reply: ReplyData,
    ) {
        let Some(text) = self.name(node).and_then(|name| self.files().text(&name)) else {
            return reply.error(libc::EIO);
        };
        let rest = text.as_bytes().get(offset as usize..).unwrap_or_default();
        reply.data(&rest[..rest.len().min(size as usize)]);
    }

    fn write(
        &mut self,
        _: &Request<'_>,
        node: u64,
        _: u64,
        _: i64,
        data: &[u8],
        _: u32,
        _: i32,
        _: Option<u64>,
        reply: ReplyWrite,
    ) {
        let text = String::from_utf8_lossy(data);
        let taken = self.name(node).and_then(|name| self.files().write(&name, &text));
        match taken {
            Some(()) => reply.written(data.len() as u32),
            None => reply.error(libc::EINVAL),
        }
    }

    fn readdir(&mut self, _: &Request<'_>, _: u64, _: u64, offset: i64, mut reply: ReplyDirectory) {
        let names = self.files().names();
        for (place, name) in names.iter().enumerate().skip(offset as usize) {
            let node = place as u64 + FOLDER + 1;
            if reply.add(node, place as i64 + 1, FileType::RegularFile, name) {
                break;
            }
        }
        reply.ok();
    }
}
