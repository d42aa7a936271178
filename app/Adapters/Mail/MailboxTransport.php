<?php

declare(strict_types=1);

namespace App\Adapters\Mail;

use Symfony\Component\Mailer\SentMessage;
use Symfony\Component\Mailer\Transport\AbstractTransport;

/** The stand-in for a mail server: each letter is a file (RFC 5322) in a folder. */
final class MailboxTransport extends AbstractTransport
{
    public function __construct(private readonly string $folder)
    {
        parent::__construct();
    }

    protected function doSend(SentMessage $message): void
    {
        is_dir($this->folder) || mkdir($this->folder, 0700, true);
        $name = sprintf('%s/%s-%s.eml', $this->folder, now()->format('Ymd-His-v'), bin2hex(random_bytes(4)));
        $written = file_put_contents($name, $message->toString());
        if ($written === false) {
            throw new \RuntimeException('The letter could not be put into the mailbox.');
        }
        chmod($name, 0600);
    }

    public function __toString(): string
    {
        return 'mailbox';
    }
}
