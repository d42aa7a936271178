<?php

declare(strict_types=1);

namespace NineTally\Core\Command;

/** What a worker says, a line each: "progress TASK BYTES RECORDS", "done TASK", "failed MESSAGE", "died MESSAGE". */
final readonly class WorkerAnswer
{
    /**
     * @param  callable(string, int, int): void  $onProgress
     * @param  callable(string): void  $onDone
     * @return bool whether the worker is done with its task
     *
     * @throws WorkerFailure
     */
    public static function heard(string $line, callable $onProgress, callable $onDone): bool
    {
        [$word, $what] = [...explode(' ', $line, 2), ''];
        if ($word === 'failed' || $word === 'died') {
            $message = json_decode($what);
            $message = is_string($message) ? $message : $what;
            throw $word === 'failed' ? WorkerFailure::saying($message) : WorkerFailure::died($message);
        }
        if ($word === 'progress') {
            [$task, $bytes, $records] = explode(' ', $what);
            $onProgress($task, (int) $bytes, (int) $records);
        } elseif ($word === 'done') {
            $onDone($what);
        }

        return $word === 'done';
    }
}
