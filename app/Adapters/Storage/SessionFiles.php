<?php

declare(strict_types=1);

namespace App\Adapters\Storage;

use App\Problems\NoRoom;
use Illuminate\Session\FileSessionHandler;

/**
 * Sessions in files, of which one that was ended stays ended: a request that had read it before somebody signed out would otherwise
 * write it anew when it is done, and that person would be signed in again.
 */
final class SessionFiles extends FileSessionHandler
{
    /** @var array<string, true> ids of sessions that were there when this request read them */
    private array $read = [];

    public function read($sessionId): string|false
    {
        $data = parent::read($sessionId);
        if ($data !== '' && $data !== false) {
            $this->read[$sessionId] = true;
        }

        return $data;
    }

    public function write($sessionId, $data): bool
    {
        $wasEnded = isset($this->read[$sessionId]) && ! $this->files->isFile("{$this->path}/{$sessionId}");

        try {
            return $wasEnded || parent::write($sessionId, $data);
        } catch (\ErrorException) {
            throw NoRoom::writing();
        }
    }
}
