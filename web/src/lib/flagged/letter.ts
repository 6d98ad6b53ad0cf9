/** What the letter begins as, by which flagged bookings are called off. */
export const beginning = {
  subject: 'About your booking: {{ page }}, {{ day }}',
  body: `Dear {{ first_name }},

thank you for booking {{ page }}. From what you told us we see that this is not the right appointment for you, and we have called it off: {{ day }}, {{ time }}. We are sorry, and hope you find what you need.

{{ workspace }}`,
};
