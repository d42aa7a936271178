<?php

declare(strict_types=1);

namespace App\Mail;

use App\Models\Invitation;
use Illuminate\Mail\Mailable;
use Illuminate\Mail\Mailables\Content;
use Illuminate\Mail\Mailables\Envelope;

/** The link by which somebody comes who was invited. */
final class InvitationMail extends Mailable
{
    public function __construct(public readonly Invitation $invitation, public readonly string $link) {}

    public function envelope(): Envelope
    {
        return new Envelope(subject: "{$this->invitation->by->name} invites you to Nine Tally");
    }

    public function content(): Content
    {
        return new Content(text: 'mail.invitation');
    }
}
