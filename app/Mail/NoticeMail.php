<?php

declare(strict_types=1);

namespace App\Mail;

use App\Models\Notice;
use Illuminate\Mail\Mailable;
use Illuminate\Mail\Mailables\Content;
use Illuminate\Mail\Mailables\Envelope;

/** What somebody wants to be told of by mail. */
final class NoticeMail extends Mailable
{
    public function __construct(public readonly Notice $notice, public readonly string $link) {}

    public function envelope(): Envelope
    {
        return new Envelope(subject: "{$this->notice->dataset->name}: {$this->notice->kind->words()}");
    }

    public function content(): Content
    {
        return new Content(text: 'mail.notice');
    }
}
