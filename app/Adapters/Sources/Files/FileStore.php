<?php

declare(strict_types=1);

namespace App\Adapters\Sources\Files;

use App\Adapters\Sources\SourceProblem;
use League\Flysystem\FilesystemException;
use League\Flysystem\FilesystemReader;

/** A place where others put files: a folder of this machine, of another one, or a bucket. */
interface FileStore
{
    /**
     * The files of it, and those of no other folder.
     *
     * @throws SourceProblem when it cannot be entered
     */
    public function enter(): FilesystemReader;

    /**
     * A file, a block after the other, so that it is held nowhere as a whole.
     *
     * @return iterable<string>
     *
     * @throws FilesystemException
     * @throws SourceProblem
     */
    public function blocks(FilesystemReader $place, string $name): iterable;

    /** What went wrong, in a sentence that names what has to be put right. */
    public function problem(\Throwable $thrown): SourceProblem;
}
